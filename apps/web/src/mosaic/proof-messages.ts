import type { Look, Plan, Proof } from '@gangway/frames';
import type { FoundFile } from '../files/dropped-pictures.js';
import type { SetAside } from '../pictures/open.js';

/** What goes to the worker that proves, and what comes back. */

export interface PictureNote {
  readonly file: string;
  readonly what: string;
}

export interface Proved {
  readonly proof: Proof;
  readonly notes: readonly PictureNote[];
  /** Files that cannot be opened, with those the proof set aside. */
  readonly aside: readonly SetAside[];
  readonly plan: Plan;
}

export type SavedAs = 'png' | 'tiff';

export type ProofAsk =
  | { readonly ask: 'prove'; readonly files: readonly FoundFile[]; readonly plan: Plan }
  | { readonly ask: 'look'; readonly id: number; readonly look: Look; readonly cut: boolean }
  | { readonly ask: 'save'; readonly as: SavedAs; readonly title: string };

export interface Looked {
  readonly id: number;
  readonly look: Look;
  readonly bitmap: ImageBitmap;
  /** False: a finer one follows. */
  readonly fine: boolean;
}

export type ProofTold =
  | { readonly told: 'progress'; readonly done: number; readonly of: number }
  | { readonly told: 'proved'; readonly proved: Proved }
  | { readonly told: 'failed'; readonly why: string }
  | ({ readonly told: 'looked' } & Looked)
  | { readonly told: 'saved'; readonly as: SavedAs; readonly blob: Blob | null };
