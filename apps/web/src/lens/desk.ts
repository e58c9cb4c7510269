import { useSyncExternalStore } from 'react';
import type { SetAside } from '../pictures/open.js';
import type { FoundFile } from '../files/dropped-pictures.js';
import type { Crop, Found, LensAsk, LensTold, OpenedFile, Work } from './messages.js';
import type { Method } from './methods.js';

/**
 * Pictures that are being measured, by lens and by method. They outlive the page, so that one may go
 * from the pictures to the lens and back; what is seen of them stays with their worker.
 */
export interface Desk {
  readonly files: readonly OpenedFile[] | null;
  readonly aside: readonly SetAside[];
  readonly doing: { readonly what: 'reading' | 'measuring'; readonly done: number; readonly of: number } | null; // prettier-ignore
  readonly found: Partial<Found>;
  readonly failed: string | null;
}

const CLEAR: Desk = { files: null, aside: [], doing: null, found: {}, failed: null };
const FAILED = 'These pictures could not be measured. Choose them again.';
/** Desks with pictures at once. */
const MOST = 4;

type OnCrop = (crop: Crop, bitmap: ImageBitmap | null) => void;

class LensDesk {
  now: Desk = CLEAR;
  private worker: Worker | null = null;
  private crops = new Map<number, OnCrop>();
  private count = 0;
  private files: readonly FoundFile[] = [];

  constructor(private readonly changed: () => void) {}

  private put(more: Partial<Desk>): void {
    this.now = { ...this.now, ...more };
    this.changed();
  }

  private ask(asked: LensAsk): void {
    this.worker?.postMessage(asked);
  }

  private hear = ({ data }: MessageEvent<LensTold>): void => {
    if (data.told === 'progress') {
      const { doing } = this.now;
      if (doing) this.put({ doing: { ...doing, done: data.done, of: data.of } });
    } else if (data.told === 'opened') this.put({ files: data.files, aside: data.aside, doing: null });
    else if (data.told === 'found') this.put({ found: { ...this.now.found, ...data.found }, aside: [...this.now.aside, ...data.aside], doing: null });
    else if (data.told === 'failed') this.put({ doing: null, failed: data.why });
    else {
      this.crops.get(data.id)?.(data.crop, data.bitmap);
      this.crops.delete(data.id);
    }
  }; // prettier-ignore

  open(files: readonly FoundFile[]): void {
    this.end();
    this.worker = new Worker(new URL('./measure-worker.ts', import.meta.url), { type: 'module' });
    this.worker.addEventListener('message', this.hear);
    this.worker.addEventListener('error', () => this.put({ doing: null, failed: FAILED }));
    this.files = files;
    this.put({ ...CLEAR, doing: { what: 'reading', done: 0, of: files.length } });
    this.ask({ ask: 'open', files });
  }

  /** The same files, those that take much memory with them. */
  openAll(): void {
    this.open(this.files.map((each) => ({ ...each, anySize: true })));
  }

  measure(work: Work): void {
    this.put({ doing: { what: 'measuring', done: 0, of: 1 }, failed: null });
    this.ask({ ask: 'work', work });
  }

  crop(crop: Crop, then: OnCrop): void {
    this.crops.set(++this.count, then);
    this.ask({ ask: 'crop', id: this.count, crop });
  }

  /** Ends what is being done; the pictures have to be chosen again. */
  end(): void {
    this.worker?.terminate();
    this.worker = null;
    this.crops.clear();
    this.put(CLEAR);
  }
}

const desks = new Map<string, LensDesk>();
const listeners = new Set<() => void>();
const changed = (): void => listeners.forEach((listen) => listen());

export function deskOf(lens: string, method: Method): LensDesk {
  const key = `${lens}/${method}`;
  const desk = desks.get(key) ?? new LensDesk(changed);
  if (!desks.has(key)) {
    for (const [other, old] of desks) {
      if (desks.size < MOST) break;
      old.end();
      desks.delete(other);
    }
    desks.set(key, desk);
  }
  return desk;
}

const subscribe = (listen: () => void): (() => void) => {
  listeners.add(listen);
  return () => listeners.delete(listen);
};

/** What lies on a desk; nothing where none was opened. */
export const useDesk = (lens: string, method: Method): Desk =>
  useSyncExternalStore(subscribe, () => desks.get(`${lens}/${method}`)?.now ?? CLEAR);
