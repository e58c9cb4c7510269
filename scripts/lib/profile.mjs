import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { at } from './paths.mjs';

export const ownDatabase = () => process.env.DATABASE_URL || undefined;

/** Runs with another database, or under another name as the tests do, may go on side by side. */
export const profile = () =>
  process.env.GANGWAY_PROFILE ??
  (ownDatabase()
    ? `url-${createHash('sha256').update(ownDatabase()).digest('hex').slice(0, 12)}`
    : 'app');

/** Held by the one start, backup or restore that a database serves at a time. */
export const lockOf = (name) => at('.data', `lock-${name}`);
export const runFileOf = (name) => at('.data', `run-${name}.json`);

/** Where the Gangway of a profile was last reached, or null. */
export function addressOfRun(name) {
  try {
    return JSON.parse(readFileSync(runFileOf(name), 'utf8')).address;
  } catch {
    return null;
  }
}
