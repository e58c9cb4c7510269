import { readFileSync } from 'node:fs';

export const isAlive = (pid) => {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return error.code === 'EPERM';
  }
};

/**
 * When a process began, in the kernel's own count: with its number it names one process for good,
 * for numbers are used again. Null where it cannot be told.
 */
export function beganAt(pid) {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
    // The name before it may hold spaces and brackets.
    return stat.slice(stat.lastIndexOf(')') + 2).split(' ')[19] ?? null;
  } catch {
    return null;
  }
}

/** Pauses that grow, in ms: what fails at once again and again is not tried at once. */
const PAUSES_MS = [500, 1000, 2000, 4000, 8000, 16_000, 30_000];

export const pauseAfter = (failures) => PAUSES_MS[Math.min(failures, PAUSES_MS.length - 1)];
