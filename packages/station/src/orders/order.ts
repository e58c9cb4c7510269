import type { ExposureReport } from '../exposure/report.js';
import type { Rests } from '../words/assumptions.js';
import type { Station } from '../document/station.js';
import type { Units } from '../words/format.js';

/** In the order things are done. */
export type OrderPart =
  'stand' | 'rig' | 'level' | 'meter' | 'move' | 'focus' | 'stop' | 'expose' | 'frames' | 'look';

/** What a hand takes hold of. */
export type Control =
  /** The tripod and its head; the level is the user’s own. */
  | { readonly kind: 'column' }
  | {
      readonly kind: 'head';
      readonly turns: 'pitch' | 'roll' | 'yaw';
      /** Counted from where the series has its middle, not from straight ahead. */
      readonly from?: 'middle';
    }
  /** The whole body, moved on its plate so that the lens stays. */
  | { readonly kind: 'body'; readonly way: 'rise' | 'shift' }
  | { readonly kind: 'back_turned' }
  | {
      readonly kind: 'standard';
      readonly standard: 'front' | 'back';
      readonly movement: 'rise' | 'shift' | 'tilt' | 'swing';
    }
  /** Turned about the lens: the shift, the lean, or both at once. */
  | { readonly kind: 'turned'; readonly turns: 'both' | 'shift' | 'tilt' }
  /** Along the way that it is turned to. */
  | { readonly kind: 'along'; readonly movement: 'shift' | 'lean' }
  /** A back that stops at places of its own. */
  | { readonly kind: 'dots' }
  /** A back that turns about the lens without stops. */
  | { readonly kind: 'pinwheel' }
  /** A back turned in its own plane. */
  | { readonly kind: 'back_angle' }
  /** Engraved for the lens straight and on its own register. */
  | { readonly kind: 'ring'; readonly engraved: 'distance' | 'magnification' }
  /** The standard on its bed: on its own scale, or counted from where infinity is crisp. */
  | { readonly kind: 'bed'; readonly counts: 'own' | 'infinity' }
  /** An adapter that draws out, from its shortest. */
  | { readonly kind: 'draw' }
  /** The whole camera, along the way it looks. */
  | { readonly kind: 'rail'; readonly mark: number | null }
  | { readonly kind: 'hand'; readonly holds: 'gap' | 'right' | 'down' }
  | { readonly kind: 'iris' }
  | { readonly kind: 'filter'; readonly index: number }
  | { readonly kind: 'iso' }
  | { readonly kind: 'shutter' }
  | { readonly kind: 'flash' };

/** One control and where it is to stand. */
export interface Setting {
  readonly control: Control;
  /** In the control’s own unit: mm, degrees, m, s, a stop, a place by its number; null: infinity. */
  readonly to: number | null;
  /** The same as it is printed, with its unit: “1.465 m”, “8.1°”, “f/11”. */
  readonly said: string;
  /** Which way from zero, as the hand goes: “up”, “to the left”, “in”; empty at zero, or where there is one way only. */
  readonly way: string;
  /** A click of it, where it has any. */
  readonly click?: number;
}

/** One thing to do. */
export interface Order {
  readonly id: string;
  readonly part: OrderPart;
  /** What is done, in the imperative. */
  readonly says: string;
  /** What is set, where it is a figure. */
  readonly figure?: string;
  readonly detail?: string;
  /** All of it as one sentence, where says and figure do not make one. */
  readonly line?: string;
  /** As a tag has it: few words, figure included; left out where a tag leaves it out. */
  readonly short?: string;
  /** The frame of a mosaic it belongs to, counted from 0. */
  readonly frame?: number;
  /** What it rests on, where that may be assumed. */
  readonly rests?: readonly Rests[];
  /** The same as data. Empty: done without a scale. */
  readonly sets: readonly Setting[];
}

/** What orders are written from. */
export interface Ordering {
  /** As it is carried out: every figure as it is printed. */
  readonly station: Station;
  /** As it was planned: what is exposed does not rest on how figures are printed. */
  readonly planned: Station;
  readonly exposure: ExposureReport | null;
  readonly units: Units;
}

/** Less of a movement than this nobody sets, mm or degrees. */
export const SEEN = 0.05;
