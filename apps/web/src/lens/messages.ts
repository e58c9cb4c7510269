import type { Area, EdgeMeasured, FlatShot, SeriesMeasured, ZeroMeasured } from '@gangway/frames';
import type { FlatAtStop } from '@gangway/station';
import type { FoundFile } from '../files/dropped-pictures.js';
import type { SetAside } from '../pictures/open.js';

/** What goes to the worker that measures lenses, and what comes back. */

export interface OpenedFile {
  /** Its place among those that were opened. */
  readonly index: number;
  readonly name: string;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly fNumber: number | null;
  readonly note: string | null;
}

export interface FlatAsk {
  readonly index: number;
  readonly fNumber: number;
  readonly at: Pick<FlatShot, 'xMm' | 'yMm' | 'widthMm' | 'heightMm'>;
}

export interface SeriesAsk {
  readonly index: number;
  readonly fNumber: number;
  readonly focusMm: number;
}

/** A piece of a picture to be looked at. */
export interface Crop {
  readonly index: number;
  /** Of its top left corner, pixels of the file. */
  readonly x: number;
  readonly y: number;
  /** Pixels of the file to each that comes out, 1 or more. */
  readonly every: number;
  readonly width: number;
  readonly height: number;
}

export type Work =
  | { readonly what: 'edge'; readonly index: number; readonly area: Area }
  | { readonly what: 'flat'; readonly shots: readonly FlatAsk[] }
  | { readonly what: 'series'; readonly shots: readonly SeriesAsk[]; readonly pitchMm: number }
  | { readonly what: 'zero'; readonly shots: readonly { index: number; deg: number }[]; readonly axis: 'tilt' | 'swing' }; // prettier-ignore

export interface Found {
  readonly edge: EdgeMeasured;
  readonly flat: readonly FlatAtStop[];
  readonly series: SeriesMeasured;
  readonly zero: ZeroMeasured;
}

export type LensAsk =
  | { readonly ask: 'open'; readonly files: readonly FoundFile[] }
  | { readonly ask: 'work'; readonly work: Work }
  | { readonly ask: 'crop'; readonly id: number; readonly crop: Crop };

export type LensTold =
  | { readonly told: 'progress'; readonly done: number; readonly of: number }
  | { readonly told: 'opened'; readonly files: readonly OpenedFile[]; readonly aside: readonly SetAside[] } // prettier-ignore
  | { readonly told: 'found'; readonly found: Partial<Found>; readonly aside: readonly SetAside[] }
  | { readonly told: 'failed'; readonly why: string }
  | { readonly told: 'crop'; readonly id: number; readonly crop: Crop; readonly bitmap: ImageBitmap | null }; // prettier-ignore
