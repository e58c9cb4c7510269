import {
  linkSync,
  mkdirSync,
  readFileSync,
  rmdirSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { dirname } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { beganAt, isAlive } from './processes.mjs';

/** Who holds a lock, when that process still lives; null otherwise. */
export function holderOf(path) {
  try {
    const holder = JSON.parse(readFileSync(path, 'utf8'));
    return isAlive(holder.pid) && beganAt(holder.pid) === holder.began ? holder : null;
  } catch {
    return null;
  }
}

/** Takes a lock that is free. @returns what gives it back, or null when a living process holds it */
export function tryLock(path) {
  mkdirSync(dirname(path), { recursive: true });
  const mine = `${path}.${process.pid}`;
  writeFileSync(mine, JSON.stringify({ pid: process.pid, began: beganAt(process.pid) }));
  try {
    if (!linked(mine, path)) {
      if (holderOf(path)) return null;
      clear(path);
      if (!linked(mine, path)) return null;
    }
  } finally {
    rmSync(mine, { force: true });
  }
  return () => rmSync(path, { force: true });
}

const NO_LINKS = new Set(['EPERM', 'ENOSYS', 'ENOTSUP', 'EOPNOTSUPP', 'EMLINK']);

/** Making a second name for a file either succeeds or finds the name taken, nothing between. */
function linked(from, to) {
  try {
    linkSync(from, to);
    return true;
  } catch (error) {
    if (error.code === 'EEXIST') return false;
    if (!NO_LINKS.has(error.code)) throw error;
  }
  // Where files have one name only: made new or found, though not with its contents at once.
  try {
    writeFileSync(to, readFileSync(from), { flag: 'wx' });
    return true;
  } catch (error) {
    if (error.code === 'EEXIST') return false;
    throw error;
  }
}

const CLEARING_MS = 10_000;

/** Removes what an ended process left; of several that find it one does, so that no new one goes. */
function clear(path) {
  const clearing = `${path}.clearing`;
  try {
    mkdirSync(clearing);
  } catch {
    const age = Date.now() - (statSync(clearing, { throwIfNoEntry: false })?.mtimeMs ?? 0);
    if (age > CLEARING_MS) rmSync(clearing, { recursive: true, force: true });
    return;
  }
  try {
    if (!holderOf(path)) rmSync(path, { force: true });
  } finally {
    rmdirSync(clearing);
  }
}

/** Waits for a lock. @param whileHeld asked again and again; what it gives ends the waiting */
export async function takeLock(path, whileHeld) {
  for (;;) {
    const release = tryLock(path);
    if (release) return { release };
    const answer = await whileHeld(holderOf(path));
    if (answer !== undefined) return { answer };
    await sleep(200);
  }
}
