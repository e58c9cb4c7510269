import { mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { at } from './paths.mjs';

/**
 * Files that are there only while something is done. Each is noted before it is made, so that what a
 * killed process left is taken away at the next start.
 */
const NOTES = at('.data', 'unfinished');

let count = 0;

/** @returns to be called when the file is gone, or is to stay */
export function leaveNothing(path) {
  mkdirSync(NOTES, { recursive: true, mode: 0o700 });
  const note = at('.data', 'unfinished', `${process.pid}-${++count}.json`);
  writeFileSync(note, JSON.stringify({ pid: process.pid, path }), { mode: 0o600 });
  return () => rmSync(note, { force: true });
}

const isAlive = (pid) => {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return error.code === 'EPERM';
  }
};

/** Takes away what killed processes left. @returns the paths */
export function sweepLeftovers() {
  const found = [];
  let notes = [];
  try {
    notes = readdirSync(NOTES);
  } catch {
    return found;
  }
  for (const name of notes) {
    const note = at('.data', 'unfinished', name);
    try {
      const { pid, path } = JSON.parse(readFileSync(note, 'utf8'));
      if (isAlive(pid)) continue;
      rmSync(path, { recursive: true, force: true });
      found.push(path);
    } catch {
      // A note that was not written to its end: the file it is about was not begun.
    }
    rmSync(note, { force: true });
  }
  return found;
}
