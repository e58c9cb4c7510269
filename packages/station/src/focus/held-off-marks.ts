import {
  clip,
  degrees,
  distanceAt,
  imageDistanceFromDistance,
  into,
  inverseLimits,
  leastLeanThrough,
  missAtUnitStopMm,
  outOf,
  sensorBasis,
  tiltSwingOf,
  turnedAxis,
  turnedTiltOf,
  type LeastLean,
  type Point,
  type Vec3,
} from '@gangway/optics';
import type { Mark, Station } from '../document/station.js';
import { setup } from '../optical/setup.js';
import { degrees as degreesSaid, fixed } from '../words/format.js';
import { rounded } from '../words/rounded.js';
import { beyondMm, clearanceAt, type HeldOffInput } from './held-off.js';
import { withMark } from './set.js';

/** So far off that no figure tells it from infinity, mm. */
const FAR_MM = 1e12;

/** Where a mark lies from the middle of the sensor, mm: right, up and ahead of the body. */
export function fromSensor({ camera }: Station, mark: Mark): Vec3 {
  const body = sensorBasis(camera.pitch_deg, camera.yaw_deg);
  const p: Vec3 = [mark.x_m * 1000, (mark.y_m - camera.height_m) * 1000, mark.z_m * 1000];
  const far = mark.infinite ? FAR_MM / (Math.hypot(...p) || 1) : 1;
  return into(body, [p[0] * far, p[1] * far, p[2] * far]);
}

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
  const sharp = (station.marks ?? [])
    .map((mark, index) => ({ mark, index, z: fromSensor(station, mark)[2] }))
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
  const [a, b] = of.map((i) => fromSensor(station, station.marks![i]!)) as [Vec3, Vec3?];
  const f = setup(station).engravedMm;
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
  const s = setup(station);
  const [most, least] = [near, far].map((p) => imageDistanceFromDistance(f, 1, p[2])) as [
    number,
    number,
  ];
  const v = (most + least) / 2;
  const pupil = { ...s.pupil, focalLengthMm: f, axisZ: 1 };
  const blur = Math.abs(missAtUnitStopMm(pupil, v, 1 / most)) / (station.lens.f_min * s.combined);
  return blur <= s.cocMm ? { axis: [0, 0, 1], imageDistanceMm: v } : null;
}

/** A pose in the hand's own words, a line each. */
export function heldOffSaid({ gapMm, leanDeg, turnDeg }: HeldPose): string[] {
  const { tiltDeg, swingDeg } = tiltSwingOf(turnedAxis({ leanDeg, turnDeg }));
  const leans = [
    Math.abs(swingDeg) >= 0.05
      ? `${degreesSaid(Math.abs(swingDeg))} to the ${swingDeg > 0 ? 'right' : 'left'}`
      : '',
    Math.abs(tiltDeg) >= 0.05
      ? `${degreesSaid(Math.abs(tiltDeg))} ${tiltDeg > 0 ? 'down' : 'up'}`
      : '',
  ].filter(Boolean);
  return [
    'Ring to infinity, widest stop.',
    `Hold the lens ${fixed(gapMm, 1)} mm ahead of the body, at the middle.`,
    leans.length === 0
      ? 'Hold it straight.'
      : `Make it look ${leans.join(' and ')}, or turn the body as much the other way.`,
    'Rock a little, and shoot bursts.',
  ];
}

/** A mark as the held lens draws it, in the cut across the lean. */
export interface HeldMark {
  readonly index: number;
  readonly label: string;
  readonly must: Mark['must'];
  /** Ahead of the sensor and along the side the lens leans to, mm. */
  readonly aheadMm: number;
  readonly asideMm: number;
  readonly blurUm: number | null;
  readonly holds: boolean;
}

/** A straight line of the cut: ahead · z + aside · s = equals, z from the sensor and s aside, mm. */
export interface CutLine {
  readonly ahead: number;
  readonly aside: number;
  readonly equals: number;
}

/** How far a place lies past a line, farther off positive, mm. */
export const pastLine = (
  { ahead, aside, equals }: CutLine,
  place: { readonly aheadMm: number; readonly asideMm: number },
): number => (ahead * place.aheadMm + aside * place.asideMm - equals) / Math.hypot(ahead, aside);

/** The scene cut along the lean: marks, plane and what is sharp before and behind it. */
export interface HeldScene {
  /** What the cut is called by: seen from above, from the side, or across the lean. */
  readonly seen: 'above' | 'side' | 'lean';
  /** The side the cut's upward direction lies on, as a unit vector right and up. */
  readonly aside: readonly [number, number];
  /** How the lens axis leans in the cut, upwards positive. */
  readonly leanDeg: number;
  readonly marks: readonly HeldMark[];
  readonly plane: CutLine;
  /** What just counts as sharp, nearer and farther than the plane. */
  readonly near: CutLine;
  readonly far: CutLine;
}

/** Within this of level or upright a lean is seen from above or from the side, degrees. */
const SQUARE_DEG = 15;

export function heldScene(station: Station, held: HeldOffInput): HeldScene {
  const s = setup(station);
  const f = s.engravedMm;
  const axis = turnedAxis({ leanDeg: held.lean_deg, turnDeg: held.turn_deg ?? 0 });
  const v = f + held.gap_mm + beyondMm(held);
  const across = Math.hypot(axis[0], axis[1]);
  const aside: [number, number] =
    across < 1e-9
      ? [1, 0]
      : [Math.abs(axis[0]) / across, (Math.sign(axis[0]) || 1) * (axis[1] / across)];
  const upright = degrees(Math.atan2(Math.abs(aside[1]), Math.abs(aside[0])));
  const seen = upright < SQUARE_DEG ? 'above' : upright > 90 - SQUARE_DEG ? 'side' : 'lean';
  // Seen from the side, up is up.
  if (seen === 'side' && aside[1] < 0) [aside[0], aside[1]] = [-aside[0], -aside[1]];
  const lean = axis[0] * aside[0] + axis[1] * aside[1];
  const pupil = { ...s.pupil, focalLengthMm: f, axisZ: axis[2] };
  const stop = station.lens.f_min * s.combined;
  const marks = (station.marks ?? []).map((mark, index): HeldMark => {
    const [x, y, ahead] = fromSensor(station, mark);
    const z = ahead - v;
    const along = axis[0] * x + axis[1] * y + axis[2] * z;
    const miss = z <= 0 ? Infinity : missAtUnitStopMm(pupil, v, (along - f) / (f * z));
    const blurMm = Math.abs(miss) / stop;
    const sharp = blurMm <= s.cocMm * (1 + 1e-9);
    return {
      index,
      label: mark.label || `Mark ${index + 1}`,
      must: mark.must,
      aheadMm: ahead,
      asideMm: x * aside[0] + y * aside[1],
      blurUm: Number.isFinite(blurMm) ? blurMm * 1000 * s.factor : null,
      holds: mark.must === 'free' || (mark.must === 'sharp') === sharp,
    };
  });
  const limits = inverseLimits(pupil, v, stop, s.cocMm);
  // What comes to focus at q: a·p − f = f p_z/q, p from the lens centre.
  const line = (inverse: number): CutLine => {
    const ahead = axis[2] - f * inverse;
    return { ahead, aside: lean, equals: f + ahead * v };
  };
  return {
    seen,
    aside,
    leanDeg: degrees(Math.atan2(lean, axis[2])),
    marks,
    plane: line(1 / v),
    near: line(limits.near),
    far: line(limits.far),
  };
}

export interface CutBounds {
  readonly left: number;
  readonly right: number;
  readonly bottom: number;
  readonly top: number;
}

/** What is sharp within a rectangle of the cut, ahead to the right, and where the plane runs; mm. */
export function heldWedge({ plane, near, far }: HeldScene, bounds: CutBounds) {
  const { left, right, bottom, top } = bounds;
  const all = [
    { x: left, y: bottom },
    { x: right, y: bottom },
    { x: right, y: top },
    { x: left, y: top },
  ];
  const past = (polygon: readonly Point[], line: CutLine, side: 1 | -1): Point[] =>
    clip(polygon, -side * line.ahead, -side * line.aside, -side * line.equals);
  const before = past(all, plane, -1);
  const onPlane = ({ x, y }: Point): boolean =>
    Math.abs(pastLine(plane, { aheadMm: x, asideMm: y })) < 1e-6 * (Math.abs(x) + Math.abs(y) + 1);
  return {
    wedge: past(past(all, near, 1), far, -1),
    plane: before.filter(onPlane).slice(0, 2),
  };
}

/** A station with one mark moved in the cut, mm ahead and aside. */
export function withHeldMark(
  station: Station,
  { aside }: Pick<HeldScene, 'aside'>,
  index: number,
  aheadMm: number,
  asideMm: number,
): Station {
  const { pitch_deg, yaw_deg } = station.camera;
  const moved = outOf(sensorBasis(pitch_deg, yaw_deg), [
    aside[0] * asideMm,
    aside[1] * asideMm,
    aheadMm,
  ]);
  const { x_m, y_m, z_m } = station.marks![index]!;
  const to = (m: number, mm: number): number => rounded(m + mm / 1000, 4);
  return withMark(station, index, {
    x_m: to(x_m, moved[0]),
    y_m: to(y_m, moved[1]),
    z_m: to(z_m, moved[2]),
  });
}

/** How near to infinity a lens comes before a body, held straight. */
export interface HeldReach {
  readonly id: string;
  readonly name: string;
  /** From the sensor; null: infinity; undefined: its register is not known. */
  readonly farthestM: number | null | undefined;
  /** The gap at which it is farthest, mm. */
  readonly gapMm: number;
}

interface Lens {
  readonly id: string;
  readonly document: {
    readonly name: string;
    readonly focal_length_mm: number;
    readonly register_mm?: number | undefined;
  };
}

/** The lenses of a kit, those first that come nearest to infinity. */
export function heldReach(
  lenses: readonly Lens[],
  bodyRegisterMm: number | undefined,
): HeldReach[] {
  const rank = ({ farthestM: m }: HeldReach): number => (m === null ? Infinity : (m ?? -1));
  return lenses
    .map(({ id, document: { name, focal_length_mm: f, register_mm: own } }): HeldReach => {
      if (own === undefined || bodyRegisterMm === undefined) {
        return { id, name, farthestM: undefined, gapMm: 0 };
      }
      const spare = own - bodyRegisterMm;
      const farthest = spare >= 0 ? Infinity : distanceAt(f, 1, f - spare);
      return {
        id,
        name,
        farthestM: Number.isFinite(farthest) ? farthest / 1000 : null,
        gapMm: Math.max(0, spare),
      };
    })
    .sort((a, b) => {
      const by = rank(b) - rank(a);
      return Number.isNaN(by) || by === 0 ? a.gapMm - b.gapMm || a.name.localeCompare(b.name) : by;
    });
}
