import * as z from 'zod';
import { allowedNames, isLoopback, type MayAsk } from './addresses.js';

const environment = z.object({
  DATABASE_URL: z.string().min(1, { error: 'DATABASE_URL must name the PostgreSQL database' }),
  HOST: z.string().min(1, { error: 'must be an address to listen on' }).default('127.0.0.1'),
  PORT: z.coerce.number().int().min(0).max(65535).default(4170),
  LOG_LEVEL: z.enum(['fatal', 'error', 'warn', 'info', 'debug', 'silent']).default('info'),
  /** More names under which a browser may reach this server, separated by commas. */
  ALLOWED_HOSTS: z.string().default(''),
  /** `off` begins with nothing: no demo job, an empty kit. */
  DEMO: z.enum(['on', 'off'], { error: 'must be on or off' }).default('on'),
  WEB_FOLDER: z.string().min(1),
  MIGRATIONS_FOLDER: z.string().min(1),
});

export interface Config {
  readonly databaseUrl: string;
  readonly host: string;
  readonly port: number;
  readonly logLevel: string;
  /** Whether requests may be addressed to a name. */
  readonly mayAsk: MayAsk;
  /** Whether others than this machine can reach it. */
  readonly open: boolean;
  readonly demo: boolean;
  readonly webFolder: string;
  readonly migrationsFolder: string;
}

/** Reads the environment. @throws when it does not serve, with a sentence for each variable */
export function readConfig(env: NodeJS.ProcessEnv): Config {
  const read = environment.safeParse(env);
  if (!read.success) {
    throw new Error(
      read.error.issues.map((issue) => `${issue.path.join('.')}: ${issue.message}`).join('\n'),
    );
  }
  const { data } = read;
  return {
    databaseUrl: data.DATABASE_URL,
    host: data.HOST,
    port: data.PORT,
    logLevel: data.LOG_LEVEL,
    mayAsk: allowedNames(data.HOST, data.ALLOWED_HOSTS.split(',')),
    open: !isLoopback(data.HOST),
    demo: data.DEMO === 'on',
    webFolder: data.WEB_FOLDER,
    migrationsFolder: data.MIGRATIONS_FOLDER,
  };
}
