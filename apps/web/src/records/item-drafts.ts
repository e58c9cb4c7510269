import * as z from 'zod';
import type { Texts } from '@gangway/station';
import { local } from '../browser/storage.js';
import { draftsOf, indexedRoom } from './drafts.js';

/** What was typed into an item’s form and is not saved yet, kept in this browser. */
export interface ItemDraft {
  readonly texts: Texts;
  /** Revision the typing began from; 0: a new item. */
  readonly baseRevision: number;
  readonly keptAt: number;
}

const shape = z.object({
  texts: z.record(z.string(), z.string()),
  baseRevision: z.number().int().min(0),
  keptAt: z.number().catch(0),
});

export const itemDrafts = draftsOf<ItemDraft>(
  'gangway.kit-draft.',
  async (kept) => shape.safeParse(kept).data ?? null,
  { shelf: local, room: indexedRoom },
);
