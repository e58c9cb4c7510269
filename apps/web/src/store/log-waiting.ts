import { idsUnder } from '../records/drafts.js';
import { places } from './store.js';

/** What the outboxes of logs are kept under. */
export const OUTBOXES = 'gangway.log.';

/** Logged while the server was away, it goes there whichever page is opened next. */
export async function sendWaitingLogs(): Promise<void> {
  if ((await idsUnder(OUTBOXES, places)).length === 0) return;
  const { logKeeper } = await import('./log.js');
  await logKeeper.sendOthers();
}
