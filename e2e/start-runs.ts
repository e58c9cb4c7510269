import { spawn, type ChildProcess } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { setTimeout as sleep } from 'node:timers/promises';

const SCRIPT = fileURLToPath(new URL('../scripts/start.mjs', import.meta.url));

/** One `npm start` and what it says. */
export interface Run {
  readonly child: ChildProcess;
  readonly said: () => string;
  readonly ended: Promise<number | null>;
}

/** A first start makes a database and builds the page. */
const PATIENCE_MS = 240_000;
const LOOK_MS = 100;

const running = new Set<ChildProcess>();

export function start(profile: string, port: number, env: NodeJS.ProcessEnv = {}): Run {
  let text = '';
  const child = spawn(process.execPath, [SCRIPT], {
    env: {
      ...process.env,
      PORT: String(port),
      GANGWAY_PROFILE: profile,
      LOG_LEVEL: 'silent',
      ...env,
    },
  });
  running.add(child);
  child.stdout.on('data', (chunk) => (text += String(chunk)));
  child.stderr.on('data', (chunk) => (text += String(chunk)));
  const ended = new Promise<number | null>((resolve) => child.once('exit', resolve));
  void ended.then(() => running.delete(child));
  return { child, said: () => text, ended };
}

export const addressOf = async (run: Run): Promise<string> => {
  const address = /Gangway is (?:already running )?at (http\S+)/;
  for (let waited = 0; waited < PATIENCE_MS; waited += LOOK_MS) {
    const found = address.exec(run.said());
    if (found) return found[1]!;
    await sleep(LOOK_MS);
  }
  throw new Error(`it never said where it is: ${run.said()}`);
};

/** Ends a start as Ctrl C does. @returns its exit code */
export async function stop({ child, ended }: Run): Promise<number | null> {
  child.kill('SIGINT');
  return ended;
}

/** Whatever a test that failed left behind. */
export async function stopAll(): Promise<void> {
  for (const child of running) {
    child.kill('SIGTERM');
    await new Promise((resolve) => child.once('exit', resolve));
  }
}
