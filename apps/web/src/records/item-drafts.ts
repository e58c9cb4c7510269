import type { Texts } from '@gangway/station';
import { draftsOf } from './drafts.js';

/** What was typed into an item’s form and is not saved yet, kept in this browser. */
export interface ItemDraft {
  readonly texts: Texts;
  /** Revision the typing began from; 0: a new item. */
  readonly baseRevision: number;
  readonly keptAt: number;
}

export const itemDrafts = draftsOf<ItemDraft>('gangway.kit-draft.', ({ texts }) => Boolean(texts));
