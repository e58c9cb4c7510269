import {
  bedReading,
  blurDiameterMm,
  inverseDepth,
  inverseLimits,
  lensFromMark,
  planeOfSharpFocus,
  add,
  subtract,
  type Point,
  outOf,
  type Vec3,
} from '@gangway/optics';
import { CONTROLS } from '../controls/controls.js';
import { markPlace, fromLensCentre, sensorAxes } from '../optical/places.js';
import { reportMarks } from './marks.js';
import type { Mark, Station } from '../document/station.js';
import { setupOf, type Setup } from '../optical/setup.js';
import { boxPlan } from '../scene/scene.js';
import { focusAt } from './apply.js';

/**
 * A cut through the lens centre, to scale, in metres from it: from the side, level lying level
 * (x ahead, y up), or as a plan across the picture (x along the sensor normal, y right).
 */
export type SectionKind = 'side' | 'plan';

export interface Line {
  /** Every point with nx x + ny y = k. */
  readonly nx: number;
  readonly ny: number;
  readonly k: number;
}

export interface SectionMark {
  readonly index: number;
  readonly label: string;
  readonly must: Mark['must'];
  readonly infinite: boolean;
  readonly at: Point;
  /** Where the plane of sharp focus passes above or below it, at its own depth to the side. */
  readonly plane: Point | null;
  readonly blurUm: number | null;
  readonly neededFNumber: number | null;
  readonly holds: boolean;
  readonly distanceM: number;
}

export interface Section {
  readonly kind: SectionKind;
  /** Ends of the sensor. */
  readonly sensor: readonly [Point, Point];
  /** Direction of the lens axis in this cut. */
  readonly axis: Point;
  /** Half the length that the lens is drawn, m. */
  readonly lensHalfM: number;
  readonly plane: Line | null;
  /** Near and far limits of the wedge; the far one is null where it lies past infinity. */
  readonly limits: readonly [Line | null, Line | null];
  /** Null while the lens stands straight in this cut. */
  readonly hinge: Point | null;
  readonly hingeMm: number | null;
  /** Where sensor plane, lens plane and plane of sharp focus meet. */
  readonly meeting: Point | null;
  readonly marks: readonly SectionMark[];
  /** Outlines of boxes, and the façade as a line. */
  readonly outlines: readonly (readonly Point[])[];
  /** Height of the ground against the lens; from the side only. */
  readonly groundM: number | null;
  readonly leanDeg: number;
  /** Where the plane of sharp focus crosses straight ahead; null past infinity. */
  readonly aheadM: number | null;
  readonly cocUm: number;
  /** The widest stop, as it acts on the back. */
  readonly widestFNumber: number;
}

/** Beyond this the plane is not drawn, m. */
const FAR_M = 1e6;

const project2 = (kind: SectionKind, s: Turn, p: Vec3): Point =>
  kind === 'plan'
    ? { x: p[2] / 1000, y: p[0] / 1000 }
    : {
        x: (p[2] * s.cos - p[1] * s.sin) / 1000,
        y: (p[2] * s.sin + p[1] * s.cos) / 1000,
      };

interface Turn {
  readonly cos: number;
  readonly sin: number;
}

/** How far the sensor normal points above level. */
function turnOf(station: Station): Turn {
  const { normal } = sensorAxes(station);
  const sin = normal[1];
  return { sin, cos: Math.sqrt(Math.max(0, 1 - sin * sin)) };
}

/** P·w = k in the camera frame, cut through the lens centre. */
function cut(kind: SectionKind, turn: Turn, w: Vec3, k: number): Line {
  return kind === 'plan'
    ? { nx: w[2], ny: w[0], k: k / 1000 }
    : {
        nx: w[2] * turn.cos - w[1] * turn.sin,
        ny: w[2] * turn.sin + w[1] * turn.cos,
        k: k / 1000,
      };
}

/** The plane on which places come to focus a depth 1/u behind the lens: P·(a − u f n) = f. */
const planeAtInverse = ({ focalLengthMm: f, axis }: Setup, u: number): { w: Vec3; k: number } => ({
  w: [axis[0], axis[1], axis[2] - u * f],
  k: f,
});

export function sectionOf(station: Station, kind: SectionKind): Section {
  const s = setupOf(station);
  const turn = turnOf(station);
  const { focalLengthMm: f, imageDistanceMm: v, axis, whole } = s;
  const to = (p: Vec3): Point => project2(kind, turn, p);
  const side = kind === 'side';
  const half = (side ? whole.heightMm : whole.widthMm) / 2;
  const off = side ? whole.riseMm : whole.shiftMm;
  const end = (by: number): Point => to(side ? [0, by - off, -v] : [by - off, 0, -v]);
  const across = side ? axis[1] : axis[0];
  const along = to([side ? 0 : axis[0], side ? axis[1] : 0, axis[2]]);
  const size = Math.hypot(along.x, along.y);
  const straight = Math.abs(across) < 1e-7;
  const limits = inverseLimits(s.pupil, v, s.fNumber, s.cocMm);
  const line = (u: number): Line => {
    const { w, k } = planeAtInverse(s, u);
    return cut(kind, turn, w, k);
  };
  const near = limits.near > 0 ? line(limits.near) : null;
  // With a straight lens a limit past infinity is none; with a leaning one it is a plane as well.
  const far = straight && axis[2] <= f * limits.far * (1 + 4e-15) ? null : line(limits.far);
  const { distanceMm } = planeOfSharpFocus(f, axis, v);
  const place = fromLensCentre(s);
  return {
    kind,
    sensor: [end(-half), end(half)],
    axis: { x: along.x / size, y: along.y / size },
    lensHalfM: Math.max(0.3 * f, 0.6 * half) / 1000,
    plane: distanceMm < FAR_M * 1000 ? line(1 / v) : null,
    limits: [near, far],
    hinge: straight ? null : to(side ? [0, f / across, 0] : [f / across, 0, 0]),
    hingeMm: straight ? null : f / across,
    meeting: straight
      ? null
      : to(side ? [0, (v * axis[2]) / across, -v] : [(v * axis[2]) / across, 0, -v]),
    marks: sectionMarks(s, kind, to),
    outlines: outlinesOf(station, place, to),
    groundM: side ? to(place(0, 0, 0)).y : null,
    leanDeg: side ? station.movements.tilt_deg : station.movements.swing_deg,
    aheadM: v * axis[2] - f > f * 4e-15 ? (v * f) / (v * axis[2] - f) / 1000 : null,
    cocUm: s.cocMm * s.factor * 1000,
    widestFNumber: station.lens.f_min * s.combined * s.factor,
  };
}

function sectionMarks(s: Setup, kind: SectionKind, to: (p: Vec3) => Point): SectionMark[] {
  const { station } = s;
  const place = markPlace(s);
  const read = reportMarks(s);
  const { w, k } = planeAtInverse(s, 1 / s.imageDistanceMm);
  const up = kind === 'side' ? 1 : 0;
  return (station.marks ?? []).map((mark, index) => {
    const p = place(mark);
    const rest = k - w[0] * p[0] - w[1] * p[1] - w[2] * p[2];
    const moved = Math.abs(w[up]) < 1e-9 ? null : rest / w[up];
    const onPlane: Vec3 | null =
      moved === null ? null : [p[0] + (up === 0 ? moved : 0), p[1] + (up === 1 ? moved : 0), p[2]];
    const { blur_um, f_number_needed, holds } = read[index]!;
    return {
      index,
      label: mark.label || `Mark ${index + 1}`,
      must: mark.must,
      infinite: mark.infinite === true,
      at: to(p),
      plane: onPlane && to(onPlane),
      blurUm: blur_um,
      neededFNumber: f_number_needed,
      holds,
      distanceM: Math.hypot(mark.x_m, mark.y_m - station.camera.height_m, mark.z_m),
    };
  });
}

function outlinesOf(
  { site, facade }: Station,
  place: (x: number, y: number, z: number) => Vec3,
  to: (p: Vec3) => Point,
): Point[][] {
  const boxes = (site?.boxes ?? []).map((box) => {
    const low = box.base_m ?? 0;
    return hull(
      boxPlan(box).flatMap(({ x, z }) => [low, low + box.height_m].map((y) => to(place(x, y, z)))),
    );
  });
  if (!facade) return boxes;
  const { distance_m: z, top_m, base_m, width_m, x_m = 0 } = facade;
  const [left, right] = [x_m - width_m / 2, x_m + width_m / 2];
  const wall = [left, right].flatMap((x) => [base_m ?? 0, top_m].map((y) => to(place(x, y, z))));
  return [...boxes, hull(wall)];
}

/** Convex hull, in order. Source: Andrew's monotone chain (1979). */
function hull(points: readonly Point[]): Point[] {
  const sorted = [...points].sort((a, b) => a.x - b.x || a.y - b.y);
  const chain = (from: readonly Point[]): Point[] => {
    const kept: Point[] = [];
    for (const p of from) {
      while (kept.length > 1) {
        const [a, b] = [kept.at(-2)!, kept.at(-1)!];
        if ((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x) > 0) break;
        kept.pop();
      }
      kept.push(p);
    }
    return kept.slice(0, -1);
  };
  return [...chain(sorted), ...chain(sorted.toReversed())];
}

/** A place of the cut as the camera frame has it, mm from the lens centre. */
function fromSection(station: Station, kind: SectionKind, { x, y }: Point): Vec3 {
  const { cos, sin } = turnOf(station);
  return kind === 'plan'
    ? [y * 1000, 0, x * 1000]
    : [0, (y * cos - x * sin) * 1000, (x * cos + y * sin) * 1000];
}

/** The scene direction of a step in the cut, m. */
export function sceneStep(
  station: Station,
  kind: SectionKind,
  dx: number,
  dy: number,
): { x_m: number; y_m: number; z_m: number } {
  const step = fromSection(station, kind, { x: dx, y: dy });
  const [x, y, z] = outOf(sensorAxes(station), step);
  return { x_m: x / 1000, y_m: y / 1000, z_m: z / 1000 };
}

/**
 * Focused so that the plane passes through a place of the cut: it swings about its hinge.
 * @returns null where no focus brings it there
 */
export function focusedThrough(station: Station, kind: SectionKind, at: Point): Station | null {
  const s = setupOf(station);
  const there = fromSection(station, kind, at);
  // The place stands still while the lens centre moves with its focus.
  const { focalLengthMm: f, axis, lensCentre, stance } = s;
  let v = s.imageDistanceMm;
  for (let round = 0; round < 30; round++) {
    const lens = lensFromMark(stance, v);
    const [x, y, z] = subtract(add(there, lensCentre), lens);
    const next = (f * z) / (x * axis[0] + y * axis[1] + z * axis[2] - f);
    if (!(z > 0) || !Number.isFinite(next) || next < 0.3 * f || next > 20 * f) return null;
    const still = Math.abs(next - v) < 1e-10 * f;
    v = next;
    if (still) break;
  }
  const focus = focusAt(station, s, { axis, imageDistanceMm: v, bedMm: bedReading(stance, v) });
  return { ...station, focus };
}

/** Leaned so that the hinge line lies so far from the lens: up or right positive, mm. */
export function hingedAt(station: Station, kind: SectionKind, distanceMm: number): Station {
  const { focalLengthMm: f } = setupOf(station);
  const { movements } = station;
  const tiltCos = Math.cos((movements.tilt_deg * Math.PI) / 180);
  const sine = f / distanceMm / (kind === 'side' ? -1 : tiltCos);
  const most = Math.sin((60 * Math.PI) / 180);
  const lean = (Math.asin(Math.max(-most, Math.min(most, sine))) * 180) / Math.PI;
  return leanedTo(station, kind, lean);
}

/** Tilted or swung to an angle, as far as the mechanism goes. */
export function leanedTo(station: Station, kind: SectionKind, deg: number): Station {
  const control = CONTROLS[kind === 'side' ? 'tilt' : 'swing'];
  const [least, most] = control.mechanism(station);
  return control.write(station, Math.min(most, Math.max(least, deg)));
}

/** Blur on the back of any place of the scene, mm; Infinity beside and behind the lens. */
export function blurAt(station: Station): (x_m: number, y_m: number, z_m: number) => number {
  const s = setupOf(station);
  const place = fromLensCentre(s);
  const { focalLengthMm: f, fNumber, imageDistanceMm: v, axis, pupil, factor } = s;
  return (x, y, z) => {
    const p = place(x, y, z);
    if (p[2] <= 0) return Infinity;
    return blurDiameterMm(pupil, fNumber, v, inverseDepth(f, axis, p)) * factor;
  };
}
