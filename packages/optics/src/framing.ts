import type { Vec3 } from './vector.js';

/**
 * Framing: which rise and shift bring a place of the scene to an edge of the frame, and from how
 * far away a whole thing fits. Scene points are in the sensor's axes (right, up, along the
 * normal), mm from the sensor mark; frame centres are in picture coordinates, as they act.
 */
export interface FramingView {
  readonly imageDistanceMm: number;
  /** When the front moves, the lens centre goes with the movement; when the rear moves it stays. */
  readonly moves: 'front' | 'rear';
}

/**
 * Where the frame's centre must lie, along one movement, for a point to fall `edgeMm` from it.
 * @param acrossMm the point along the movement: its up for rise, its right for shift
 * @param aheadMm the point along the sensor normal
 * @returns mm of movement as it acts; null when the point is not ahead of the lens
 */
export function centreForEdge(
  { imageDistanceMm: v, moves }: FramingView,
  acrossMm: number,
  aheadMm: number,
  edgeMm: number,
): number | null {
  const z = aheadMm - v;
  if (z <= 0) return null;
  // Seen from (r, v): v (across − r) / z = r + edge; the lens of a rear movement stays at r = 0.
  const carried = moves === 'front' ? v : 0;
  return (v * acrossMm - edgeMm * z) / (z + carried);
}

/** A corner of an upright rectangle square to the station, whose distance may change. */
export interface Corner3 {
  /** In the sensor's axes, mm from the sensor mark, at no distance. */
  readonly base: Vec3;
  /** What each mm of distance adds. */
  readonly perMm: Vec3;
}

export interface Rectangle3 {
  readonly top: readonly [Corner3, Corner3];
  /** Null when the foot is not wanted in the frame. */
  readonly foot: readonly [Corner3, Corner3] | null;
}

/** Edges of the frame, mm from the centre that moves (they differ where a part is kept). */
export interface FrameEdges {
  readonly left: number;
  readonly right: number;
  readonly bottom: number;
  readonly top: number;
}

export interface FramingFrame {
  readonly edges: FrameEdges;
  /** The centre along shift, as it acts. */
  readonly shiftMm: number;
}

export const cornerAt = ({ base, perMm }: Corner3, distanceMm: number): Vec3 => [
  base[0] + perMm[0] * distanceMm,
  base[1] + perMm[1] * distanceMm,
  base[2] + perMm[2] * distanceMm,
];

/** c0 + c1 D + c2 D² ≤ 0. */
type Condition = readonly [number, number, number];

type Linear = readonly [number, number];

const times = (a: Linear, b: Linear): Condition => [
  a[0] * b[0],
  a[0] * b[1] + a[1] * b[0],
  a[1] * b[1],
];
const plus = (a: Linear, b: Linear, k = 1): Linear => [a[0] + k * b[0], a[1] + k * b[1]];
const scaled = (a: Linear, k: number): Linear => [a[0] * k, a[1] * k];

/** A corner as linear functions of the distance: across × v, up × v, depth ahead of the lens. */
function linears({ base, perMm }: Corner3, v: number) {
  const of = (i: 0 | 1 | 2): Linear => [base[i], perMm[i]];
  return { x: scaled(of(0), v), y: scaled(of(1), v), z: plus(of(2), [v, 0], -1) };
}

/**
 * What a distance must satisfy for the rectangle to lie in one frame at a rise within `rise`:
 * inequalities in the distance, at most quadratic.
 */
function conditions(
  view: FramingView,
  frame: FramingFrame,
  { top, foot }: Rectangle3,
  rise: { readonly low: number; readonly high: number },
): Condition[] {
  const { imageDistanceMm: v, moves } = view;
  const carried: Linear = [moves === 'front' ? v : 0, 0];
  const { edges } = frame;
  const linear = (a: Linear): Condition => [a[0], a[1], 0];
  const tops = top.map((corner) => linears(corner, v));
  // Where the foot is not wanted the top itself must still lie above the frame's foot.
  const feet = (foot ?? top).map((corner) => linears(corner, v));
  /** Numerator of the centre that puts the point on an edge, and its denominator. */
  const centre = (along: Linear, z: Linear, edge: number): [Linear, Linear] => [
    plus(along, z, -edge),
    plus(z, carried),
  ];
  const found: Condition[] = [];
  for (const { x, z } of foot ? [...tops, ...feet] : tops) {
    found.push(linear(scaled(z, -1)));
    const [right, under] = centre(x, z, edges.right);
    found.push(linear(plus(right, under, -frame.shiftMm)));
    const [left] = centre(x, z, edges.left);
    found.push(linear(plus(scaled(under, frame.shiftMm), left, -1)));
  }
  for (const { y, z } of tops) {
    const [needed, under] = centre(y, z, edges.top);
    if (rise.high < Infinity) found.push(linear(plus(needed, under, -rise.high)));
    for (const low of feet) {
      const [cut, below] = centre(low.y, low.z, edges.bottom);
      const [a, b] = [times(needed, below), times(cut, under)];
      found.push([a[0] - b[0], a[1] - b[1], a[2] - b[2]]);
    }
  }
  for (const { y, z } of feet) {
    const [cut, under] = centre(y, z, edges.bottom);
    if (rise.low > -Infinity) found.push(linear(plus(scaled(under, rise.low), cut, -1)));
  }
  return found;
}

const SLACK = 1e-11;

/** Holds, but for what rounding adds. */
const holds = ([c0, c1, c2]: Condition, d: number): boolean =>
  c0 + c1 * d + c2 * d * d <= SLACK * (Math.abs(c0) + Math.abs(c1 * d) + Math.abs(c2 * d * d));

function roots([c0, c1, c2]: Condition): number[] {
  if (Math.abs(c2) < 1e-300) return c1 === 0 ? [] : [-c0 / c1];
  const discriminant = c1 * c1 - 4 * c2 * c0;
  if (discriminant < 0) return [];
  const q = -(c1 + (c1 < 0 ? -1 : 1) * Math.sqrt(discriminant)) / 2;
  return q === 0 ? [0] : [q / c2, c0 / q];
}

/** Whether the rectangle at a distance lies in one frame at some rise within `rise`. */
export function rectangleFits(
  view: FramingView,
  frame: FramingFrame,
  rectangle: Rectangle3,
  rise: { readonly low: number; readonly high: number },
  distanceMm: number,
): boolean {
  if (rise.low > rise.high) return false;
  return conditions(view, frame, rectangle, rise).every((each) => holds(each, distanceMm));
}

/**
 * The least distance at which the rectangle fits. The least place of a region bounded by
 * polynomials lies at one of their roots, so each root is tried.
 * @returns mm; null when it fits from nowhere
 */
export function leastDistanceThatFits(
  view: FramingView,
  frame: FramingFrame,
  rectangle: Rectangle3,
  rise: { readonly low: number; readonly high: number },
): number | null {
  if (rise.low > rise.high) return null;
  const all = conditions(view, frame, rectangle, rise);
  const candidates = all
    .flatMap(roots)
    .filter((d) => Number.isFinite(d) && d > 0)
    .sort((a, b) => a - b);
  return candidates.find((d) => all.every((each) => holds(each, d))) ?? null;
}
