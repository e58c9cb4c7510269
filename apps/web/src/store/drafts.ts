import type { Station } from '@gangway/station';

/**
 * What this browser keeps of an edit until the server has it. One entry a tab, so that two
 * tabs on one station never write over each other.
 */
export interface Draft {
  baseRevision: number;
  document: Station;
  /** Text in fields that is not, or not yet, a value: pointer → text. */
  typed: Record<string, string>;
  /** Sent, but not answered for: the server may have any of them. */
  unanswered: Station[];
  keptAt: number;
}

const PREFIX = 'gangway.draft.';

export interface Shelf {
  readonly length: number;
  key(index: number): string | null;
  getItem(key: string): string | null;
  setItem(key: string, value: string): void;
  removeItem(key: string): void;
}

/** Same for the life of a tab, reloads included. */
export function tabId(session: Pick<Storage, 'getItem' | 'setItem'>): string {
  const kept = session.getItem('gangway.tab');
  if (kept) return kept;
  const made = crypto.randomUUID();
  session.setItem('gangway.tab', made);
  return made;
}

const keyOf = (stationId: string, tab: string): string => `${PREFIX}${stationId}.${tab}`;

/** @returns false when the browser's storage is full or forbidden */
export function keepDraft(shelf: Shelf, stationId: string, tab: string, draft: Draft): boolean {
  try {
    shelf.setItem(keyOf(stationId, tab), JSON.stringify(draft));
    return true;
  } catch {
    return false;
  }
}

export function dropDraft(shelf: Shelf, stationId: string, tab: string): void {
  try {
    shelf.removeItem(keyOf(stationId, tab));
  } catch {
    // Nothing can be kept, so nothing is.
  }
}

/** This tab's draft; without one, the newest that a closed tab left behind. */
export function findDraft(
  shelf: Shelf,
  stationId: string,
  tab: string,
): { tab: string; draft: Draft } | null {
  const found: { tab: string; draft: Draft }[] = [];
  try {
    for (let i = 0; i < shelf.length; i++) {
      const key = shelf.key(i);
      if (!key?.startsWith(`${PREFIX}${stationId}.`)) continue;
      const draft = JSON.parse(shelf.getItem(key) ?? 'null') as Draft | null;
      if (draft?.document)
        found.push({ tab: key.slice(PREFIX.length + stationId.length + 1), draft });
    }
  } catch {
    return null;
  }
  const own = found.find((each) => each.tab === tab);
  return own ?? found.sort((a, b) => b.draft.keptAt - a.draft.keptAt)[0] ?? null;
}
