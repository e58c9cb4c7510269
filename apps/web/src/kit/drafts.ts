import type { Texts } from '@gangway/station';

/** What was typed into an item’s form and is not saved yet, kept in this browser. */
export interface ItemDraft {
  readonly texts: Texts;
  /** Revision the typing began from; 0: a new item. */
  readonly baseRevision: number;
}

const keyOf = (id: string): string => `gangway.kit-draft.${id}`;

export function keptDraft(id: string): ItemDraft | null {
  try {
    return JSON.parse(localStorage.getItem(keyOf(id)) ?? 'null') as ItemDraft | null;
  } catch {
    return null;
  }
}

export function keepItemDraft(id: string, draft: ItemDraft | null): void {
  try {
    if (draft) localStorage.setItem(keyOf(id), JSON.stringify(draft));
    else localStorage.removeItem(keyOf(id));
  } catch {
    // Storage is full or forbidden: what was typed lives as long as the page.
  }
}
