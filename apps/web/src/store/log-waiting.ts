import { idsUnder } from '../records/drafts.js';
import { OUTBOXES, places } from './store.js';

/** Logged while the server was away, it goes there whichever page is opened next. */
export async function sendWaitingLogs(): Promise<void> {
  if ((await idsUnder(OUTBOXES, places)).length === 0) return;
  const { logKeeper } = await import('./log.js');
  await logKeeper.sendOthers();
}
