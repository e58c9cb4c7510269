import { addressOfRun, lockOf, ownDatabase, profile } from './profile.mjs';
import { ensurePackages } from './install.mjs';
import { sweepLeftovers } from './leftovers.mjs';
import { holderOf, tryLock } from './lock.mjs';

/**
 * Runs a command on the database that `npm start` would use, starting it for as long as needed.
 * @param mayRun whether Gangway may be running meanwhile
 */
export async function withDatabase(mayRun, say, work) {
  ensurePackages(say);
  sweepLeftovers();
  const name = profile();
  const release = tryLock(lockOf(name));
  if (!release && !mayRun) {
    const address = addressOfRun(name);
    const holder = holderOf(lockOf(name));
    throw new Error(
      `Gangway is running${address ? ` at ${address}` : ''} (process ${holder?.pid ?? 'unknown'}). ` +
        'Stop it first; nothing was changed.',
    );
  }
  try {
    if (ownDatabase()) return await work(ownDatabase(), name);
    const { localPostgres } = await import('./postgres.mjs');
    const database = localPostgres(name, say);
    const url = await database.start();
    try {
      return await work(url, name);
    } finally {
      // One that serves a running Gangway is left to it.
      if (release) await database.stop();
      else database.leave();
    }
  } finally {
    release?.();
  }
}
