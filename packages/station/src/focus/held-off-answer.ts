import {
  imageDistanceFromDistance,
  leastLeanThrough,
  missAtUnitStopMm,
  tiltSwingOf,
  turnedTiltOf,
  type LeastLean,
  type Vec3,
} from '@gangway/optics';
import type { Mark, Station } from '../document/station.js';
import { markPlace } from '../optical/places.js';
import { setupOf } from '../optical/setup.js';
import { degrees as degreesSaid, fixed } from '../words/format.js';
import { rounded } from '../words/rounded.js';
import { clearanceAt } from './held-off.js';
import { asShot, beyondMm, type HeldOffInput } from '../optical/held.js';

/** Where a mark lies from the middle of the sensor, mm: right, up and ahead of the body. */
const fromSensor = (station: Station): ((mark: Mark) => Vec3) =>
  markPlace({ ...asShot(setupOf(station)), lensCentre: [0, 0, 0] });

/** How the lens and the body stand to each other. */
export interface HeldPose {
  readonly gapMm: number;
  readonly leanDeg: number;
  /** Clockwise as seen from behind; 0 leans forward. */
  readonly turnDeg: number;
}

export interface HeldOffAnswer {
  /** What to hold; null where no hand can. */
  readonly pose: HeldPose | null;
  /** Why not, or what to mind; null where all is well. */
  readonly hindrance: string | null;
  /** Which marks it was found for, by their place in the list. */
  readonly of: readonly number[];
}

/** The marks that a held lens is told by: the nearest and the farthest that must be sharp. */
export function heldOffPair(station: Station): number[] {
  const place = fromSensor(station);
  const sharp = (station.marks ?? [])
    .map((mark, index) => ({ mark, index, z: place(mark)[2] }))
    .filter(({ mark, z }) => mark.must === 'sharp' && z > 0)
    .sort((a, b) => a.z - b.z);
  const [first, last] = [sharp[0], sharp.at(-1)];
  return first && last ? [...new Set([first.index, last.index])] : [];
}

/**
 * The gap, the lean and its side that put two things on one plane, or one thing straight ahead of
 * the lens. Of all leans that do, the least is taken: it is the steadiest to hold and needs the
 * least room.
 */
export function heldOffAnswer(station: Station, held: HeldOffInput): HeldOffAnswer | null {
  const of = heldOffPair(station);
  if (of.length === 0) return null;
  const place = fromSensor(station);
  const [a, b] = of.map((i) => place(station.marks![i]!)) as [Vec3, Vec3?];
  const f = setupOf(station).engravedMm;
  const none = (hindrance: string): HeldOffAnswer => ({ pose: null, hindrance, of });
  if (a[2] <= 4 * f) return none('It is nearer than the lens can bring to focus at all.');
  const found = straightFor(station, f, a, b ?? a) ?? leastLeanThrough(f, [a, b ?? a]);
  if (!found) {
    return none('One thing lies behind the other as seen from the lens: no lean makes both sharp.');
  }
  const { leanDeg, turnDeg } = turnedTiltOf(tiltSwingOf(found.axis));
  const lean = rounded(leanDeg, 2);
  if (lean > MOST_LEAN_DEG) {
    return none(
      `It asks for a lean of ${degreesSaid(lean)}, more than a hand holds. Move the things further apart across the picture.`,
    );
  }
  const turn = lean === 0 ? 0 : rounded(turnDeg, 1) % 360;
  const gapMm = rounded(found.imageDistanceMm - f - beyondMm(held), 2);
  const clearance = clearanceAt(held, lean);
  const said = (mm: number): string => `${fixed(mm, 1)} mm`;
  if (gapMm < clearance - 1e-9) {
    const short = `It asks for a gap of ${said(gapMm)}`;
    return none(
      gapMm < 0
        ? `${short}: the lens would have to go into the body. Bring the things nearer, or take a lens of longer register.`
        : `${short}, and at ${degreesSaid(lean)} the flanges touch below ${said(clearance)}. Bring the things nearer, or closer to one distance.`,
    );
  }
  return { pose: { gapMm, leanDeg: lean, turnDeg: turn }, hindrance: null, of };
}

/** More than this nobody holds, and no lens draws. */
const MOST_LEAN_DEG = 35;

/** A lens held straight between two things, where what is sharp reaches both; null where it does not. */
function straightFor(station: Station, f: number, near: Vec3, far: Vec3): LeastLean | null {
  const s = setupOf(station);
  const [most, least] = [near, far].map((p) => imageDistanceFromDistance(f, 1, p[2])) as [
    number,
    number,
  ];
  const v = (most + least) / 2;
  const pupil = { ...s.pupil, focalLengthMm: f, axisZ: 1 };
  const blur = Math.abs(missAtUnitStopMm(pupil, v, 1 / most)) / (station.lens.f_min * s.combined);
  return blur <= s.cocMm ? { axis: [0, 0, 1], imageDistanceMm: v } : null;
}
