import { spawn, type ChildProcess } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { expect } from '@playwright/test';

const SCRIPT = fileURLToPath(new URL('../scripts/start.mjs', import.meta.url));

/** One `npm start` and what it says. */
export interface Run {
  readonly child: ChildProcess;
  readonly said: () => string;
  readonly ended: Promise<number | null>;
}

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
  await expect.poll(run.said, { timeout: 240_000 }).toMatch(address);
  return address.exec(run.said())![1]!;
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
