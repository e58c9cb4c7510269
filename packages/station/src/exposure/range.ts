import type { Exposure, Station } from '../document/station.js';
import { evOfSpots } from './light.js';
import type { Worked } from './worked.js';
import { leastOf, mostOf } from '@gangway/optics';

/** A scene and what each exposure holds of it, in stops from middle grey. */
export interface SceneRange {
  /** From its darkest to its brightest; null where nobody said. */
  readonly scene: readonly [number, number] | null;
  readonly spots: readonly { readonly label: string; readonly at: number }[];
  /** Longest exposure first: it holds the darkest. Each is taken evenly about middle grey. */
  readonly frames: readonly (readonly [number, number])[];
  /** Whether all of the scene is held; null where there is nothing to compare. */
  readonly covers: boolean | null;
  /** What none of them holds at either end, in stops; null as `covers`. */
  readonly past: { readonly darks: number; readonly lights: number } | null;
  /** They stand farther apart than one holds: light between them is held by none. */
  readonly gaps: boolean;
  /** More is held than the scene spans, in stops; null as `covers`. */
  readonly over: number | null;
}

type Ends = readonly [number, number];

/** Thirds of a stop as typed, 1.67, add up to this much less than they mean. */
export const SPAN_ROUNDING = 0.02;

/** Null with neither a scene nor a medium to compare, and with flash. */
export function rangeHeld(
  { exposure = {} }: Station,
  { scene_range_stops: range, span_stops: span }: Pick<Worked, 'scene_range_stops' | 'span_stops'>,
): SceneRange | null {
  const { medium_range_stops: medium, brackets, scene_range_stops: given } = exposure;
  if (exposure.flash || (range === null && medium === undefined)) return null;
  const spots = spotsIn(exposure);
  const scene = range === null ? null : sceneEnds(range, given === undefined ? spots : []);
  const { frames: count = 1, step_stops: step = 0 } = brackets ?? {};
  const frames = medium === undefined ? [] : framesHeld(medium, count, step);
  const past = scene === null || frames.length === 0 ? null : pastOf(scene, frames);
  const gaps = count > 1 && medium !== undefined && step > medium + SPAN_ROUNDING;
  return {
    scene,
    spots,
    frames,
    covers: past && past.darks + past.lights === 0 && !gaps,
    past,
    gaps,
    over: span === null || range === null ? null : span - range,
  };
}

function spotsIn({ meter }: Exposure): SceneRange['spots'] {
  const read = meter?.spots ?? [];
  const middle = evOfSpots(read) ?? 0;
  return read.map(({ label, ev }, i) => ({ label: label || `Spot ${i + 1}`, at: ev - middle }));
}

function sceneEnds(scene: number, spots: readonly { readonly at: number }[]): Ends {
  if (spots.length < 2) return [-scene / 2, scene / 2];
  const at = spots.map((each) => each.at);
  return [leastOf(at), mostOf(at)];
}

const framesHeld = (medium: number, frames: number, step: number): Ends[] =>
  Array.from({ length: frames }, (_, i) => {
    const over = step * ((frames - 1) / 2 - i);
    return [-over - medium / 2, -over + medium / 2];
  });

function pastOf([dark, light]: Ends, frames: readonly Ends[]): SceneRange['past'] {
  const past = (by: number): number => (by > SPAN_ROUNDING / 2 ? by : 0);
  return { darks: past(frames[0]![0] - dark), lights: past(light - frames.at(-1)![1]) };
}

/** What a scene asks of exposures that lie evenly about middle grey, in stops: twice its farther end. */
export const rangeAsked = ([dark, light]: Ends): number =>
  2 * Math.max(Math.abs(dark), Math.abs(light));
