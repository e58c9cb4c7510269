import { useSyncExternalStore } from 'react';
import type { Look, Plan } from '@gangway/frames';
import type { FoundFile } from '../files/dropped-pictures.js';
import type { Looked, ProofAsk, Proved, ProofTold, SavedAs } from './proof-messages.js';

/**
 * The proof that is being made, or was made last. It outlives the page, so that one may look at the
 * layout and come back; its pictures stay with the worker.
 */
export interface Desk {
  /** The station it is of. */
  readonly station: string | null;
  readonly files: readonly FoundFile[];
  readonly progress: { readonly done: number; readonly of: number } | null;
  readonly proved: Proved | null;
  readonly failed: string | null;
  readonly saving: SavedAs | null;
}

const CLEAR: Desk = { station: null, files: [], progress: null, proved: null, failed: null, saving: null }; // prettier-ignore

const FAILED = 'These frames could not be proved. Choose them again.';

let desk: Desk = CLEAR;
let worker: Worker | null = null;
let onLooked: ((looked: Looked) => void) | null = null;
let onSaved: ((blob: Blob | null, as: SavedAs) => void) | null = null;
const listeners = new Set<() => void>();

function put(more: Partial<Desk>): void {
  desk = { ...desk, ...more };
  listeners.forEach((listen) => listen());
}

function end(): void {
  worker?.terminate();
  worker = null;
}

function hear({ data }: MessageEvent<ProofTold>): void {
  if (data.told === 'progress') put({ progress: { done: data.done, of: data.of } });
  else if (data.told === 'proved') put({ progress: null, proved: data.proved });
  else if (data.told === 'failed') put({ progress: null, failed: data.why });
  else if (data.told === 'looked') onLooked?.(data);
  else {
    put({ saving: null });
    onSaved?.(data.blob, data.as);
  }
}

const ask = (asked: ProofAsk): void => worker?.postMessage(asked);

export const proofDesk = {
  begin(station: string, files: readonly FoundFile[], plan: Plan): void {
    end();
    put({ ...CLEAR, station, files, progress: { done: 0, of: 3 * files.length } });
    worker = new Worker(new URL('./prove-worker.ts', import.meta.url), { type: 'module' });
    worker.addEventListener('message', hear);
    worker.addEventListener('error', () => put({ progress: null, failed: FAILED }));
    ask({ ask: 'prove', files, plan });
  },
  stop(): void {
    end();
    put(CLEAR);
  },
  look: (id: number, look: Look, cut: boolean): void => ask({ ask: 'look', id, look, cut }),
  onLooked(hearing: ((looked: Looked) => void) | null): void {
    onLooked = hearing;
  },
  save(as: SavedAs, title: string, then: (blob: Blob | null, as: SavedAs) => void): void {
    onSaved = then;
    put({ saving: as });
    ask({ ask: 'save', as, title });
  },
};

const subscribe = (listen: () => void): (() => void) => {
  listeners.add(listen);
  return () => listeners.delete(listen);
};

/** The desk as far as it is of this station. */
export function useProofDesk(station: string): Desk {
  const now = useSyncExternalStore(subscribe, () => desk);
  return now.station === station ? now : CLEAR;
}
