import { newId } from './new-id.js';
import { readFrom, writeTo, type Shelf } from './storage.js';

const [ID, HELD] = ['gangway.tab', 'gangway.tab-held'];

/**
 * The same for the life of a tab, reloads included. A tab made by duplicating another begins with a
 * copy of its session: there the id is still held by a living page, and the new tab takes its own.
 */
export function tabId(session: Shelf): string {
  const kept = readFrom(session, ID);
  const id = kept !== null && readFrom(session, HELD) !== 'yes' ? kept : newId();
  writeTo(session, ID, id);
  holdTab(session, true);
  return id;
}

/** Held while the page lives; let go when it is left or loaded anew. */
export const holdTab = (session: Shelf, held: boolean): void =>
  void writeTo(session, HELD, held ? 'yes' : 'no');
