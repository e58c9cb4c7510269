import type { ExposureReport } from '../exposure/report.js';
import type { Rests } from '../report/assumed.js';
import type { Station } from '../document/station.js';
import type { Units } from '../words/format.js';
import type { Looked } from './settle.js';

/** In the order things are done. */
export type CardPart =
  'stand' | 'rig' | 'level' | 'meter' | 'move' | 'focus' | 'stop' | 'expose' | 'frames' | 'look';

/** One thing to do, its figure large. */
export interface CardStep {
  readonly id: string;
  readonly part: CardPart;
  /** What is done, in the imperative. */
  readonly says: string;
  /** What is set, where it is a figure. */
  readonly figure?: string;
  readonly detail?: string;
  /** The frame of a mosaic it belongs to, counted from 0. */
  readonly frame?: number;
  /** What it rests on, where that may be assumed. */
  readonly rests?: readonly Rests[];
}

/** What the steps are written from. */
export interface Told {
  /** As the card has it carried out. */
  readonly station: Station;
  readonly report: Looked;
  /** As it was planned: what is exposed does not rest on how figures are printed. */
  readonly exposure: ExposureReport | null;
  readonly planned: Station;
  readonly units: Units;
}

/** Less than this is level, or straight ahead. */
export const SEEN = 0.05;
