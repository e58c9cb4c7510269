import type { Station } from '../document/station.js';
import type { ExposureReport } from './report.js';
import { evOfSpots } from './light.js';

/** A scene and what each exposure holds of it, in stops from middle grey. */
export interface SceneRange {
  /** From its darkest to its brightest; null where nobody said. */
  readonly scene: readonly [number, number] | null;
  readonly spots: readonly { readonly label: string; readonly at: number }[];
  /** Longest exposure first: it holds the darkest. Each is taken evenly about middle grey. */
  readonly frames: readonly (readonly [number, number])[];
  readonly covers: boolean | null;
  /** What is held past the scene, or short of it. */
  readonly spare: number | null;
}

type Ends = readonly [number, number];

/** Null with neither a scene nor a medium to compare, and with flash. */
export function rangeHeld({ exposure = {} }: Station, report: ExposureReport): SceneRange | null {
  const { medium_range_stops: medium, brackets, meter, scene_range_stops: given } = exposure;
  const { scene_range_stops: scene, covers_range: covers, span_stops: span } = report;
  if (exposure.flash || (scene === null && medium === undefined)) return null;
  const read = meter?.spots ?? [];
  const middle = evOfSpots(read) ?? 0;
  const spots = read.map(({ label, ev }, i) => ({
    label: label || `Spot ${i + 1}`,
    at: ev - middle,
  }));
  return {
    scene: scene === null ? null : sceneEnds(scene, given === undefined ? spots : []),
    spots,
    frames: medium === undefined ? [] : framesHeld(medium, brackets?.frames, brackets?.step_stops),
    covers,
    spare: span === null || scene === null ? null : span - scene,
  };
}

function sceneEnds(scene: number, spots: readonly { readonly at: number }[]): Ends {
  if (spots.length < 2) return [-scene / 2, scene / 2];
  const at = spots.map((each) => each.at);
  return [Math.min(...at), Math.max(...at)];
}

const framesHeld = (medium: number, frames = 1, step = 0): Ends[] =>
  Array.from({ length: frames }, (_, i) => {
    const over = step * ((frames - 1) / 2 - i);
    return [-over - medium / 2, -over + medium / 2];
  });
