import { isSpent, newBudget, type Budget } from './budget.js';
import { lensAxis, pivotTravel, sensorBasis, type TiltSwing } from './axis.js';
import { frameCorner, CORNERS, type Frame } from './coverage.js';
import { minimax, type Away } from './minimax.js';
import { degrees, radians, type Vec3 } from './vector.js';

/**
 * The best wedge: how to lean and focus so that the f-number that holds all marks is least.
 * Marks are given from the sensor mark along the axes of the camera's body (right, up, ahead), so
 * that what a movement does to the lens centre is part of the search and not of its input.
 */
export interface SolveMark {
  /** mm; only the direction counts for a mark at infinity. */
  readonly at: Vec3;
  readonly infinite: boolean;
}

/** A mark to be left soft: at least this blur at the stop that is used. */
export interface SoftMark extends SolveMark {
  readonly blurMm: number;
}

/** What leans, and between which ends. */
export type Freedom =
  | {
      readonly kind: 'front' | 'rear';
      /** Degrees, least and greatest; the same twice where it is locked. */
      readonly tilt: readonly [number, number];
      readonly swing: readonly [number, number];
      /** Greatest lean in all, degrees. */
      readonly leanDeg: number;
    }
  | {
      /** A lens that leans along one line only, turned to a stop. */
      readonly kind: 'turned';
      readonly turnDeg: number;
      readonly lean: readonly [number, number];
    };

export interface SolveQuestion {
  /** At a magnification straight ahead: a lens that breathes has another close up. */
  readonly focalLengthMm: (magnification: number) => number;
  readonly cocMm: number;
  /** The widest stop, for blur that is wanted. */
  readonly widestFNumber: number;
  readonly sharp: readonly SolveMark[];
  readonly soft: readonly SoftMark[];
  readonly freedom: Freedom;
  /** Movements that stay as they are. */
  readonly lens: TiltSwing;
  readonly rear: TiltSwing;
  readonly shiftMm: number;
  readonly riseMm: number;
  readonly pivotMm: number;
  readonly moves: 'front' | 'rear';
  /** Magnifications straight ahead that the rig focuses between; Infinity where none is known. */
  readonly magnification: readonly [number, number];
  /** The frame that has to lie in the cone, its centre as set, without what a pivot adds. */
  readonly cover: { readonly frame: Frame; readonly halfAngleRad: number } | null;
  readonly start: {
    readonly tilt: number;
    readonly swing: number;
    readonly magnification: number;
  };
  /** Shared by all that is asked for one answer; a new one when left out. */
  readonly budget?: Budget;
}

export interface Solved {
  readonly lens: TiltSwing;
  readonly rear: TiltSwing;
  readonly axis: Vec3;
  readonly focalLengthMm: number;
  readonly imageDistanceMm: number;
  /** The least f-number that holds every sharp mark; 0 when all lie on the plane. */
  readonly fNumber: number;
  /** Image depth of each sharp mark, mm; Infinity or negative where it comes to no focus. */
  readonly depthsMm: readonly number[];
  /** By how much the circle, the focus or a wanted blur is missed, mm; 0 when all are met. */
  readonly shortMm: number;
}

/** What a camera makes of two leans and an image distance. */
interface Pose {
  lens: TiltSwing;
  rear: TiltSwing;
  axis: Vec3;
  /** From the body's axes to the sensor's; null while they are the same. */
  basis: { right: Vec3; up: Vec3; normal: Vec3 } | null;
  pivot: { x: number; y: number };
}

function leaning(
  question: SolveQuestion,
  a: number,
  b: number,
): { lens: TiltSwing; rear: TiltSwing } {
  const { freedom } = question;
  const [tiltDeg, swingDeg] = [degrees(a), degrees(b)];
  switch (freedom.kind) {
    case 'front':
      return { lens: { tiltDeg, swingDeg }, rear: question.rear };
    case 'rear':
      return { lens: question.lens, rear: { tiltDeg, swingDeg } };
    case 'turned': {
      const turn = radians(freedom.turnDeg);
      const [x, y, z] = [-Math.sin(a) * Math.sin(turn), -Math.sin(a) * Math.cos(turn), Math.cos(a)];
      return {
        lens: { tiltDeg: degrees(Math.asin(-y)), swingDeg: degrees(Math.atan2(x, z)) },
        rear: question.rear,
      };
    }
  }
}

function pose(question: SolveQuestion, a: number, b: number): Pose {
  const { lens, rear } = leaning(question, a, b);
  const own = lensAxis(lens);
  const still = rear.tiltDeg === 0 && rear.swingDeg === 0;
  const basis = still ? null : sensorBasis(rear.tiltDeg, rear.swingDeg);
  const axis: Vec3 = basis
    ? [along(own, basis.right), along(own, basis.up), along(own, basis.normal)]
    : own;
  const travel = question.pivotMm === 0 ? null : pivotTravel(own, question.pivotMm);
  return {
    lens,
    rear,
    axis,
    basis,
    pivot: travel ? { x: travel.shiftMm, y: travel.riseMm } : NO_PIVOT,
  };
}

const NO_PIVOT = { x: 0, y: 0 };

const along = (a: Vec3, b: Vec3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

/**
 * f (v/q − 1), mm: over the circle of confusion it is the f-number a mark asks for, and its sign
 * says on which side of the plane the mark lies. Smooth also where q is not: v (P·a − f h)/P_z − f
 * with h = 0 for a mark at infinity.
 */
function missMm(
  question: SolveQuestion,
  { axis, basis, pivot }: Pose,
  f: number,
  v: number,
  mark: SolveMark,
): number {
  const { moves, shiftMm, riseMm } = question;
  const [ox, oy, oz] = mark.at;
  let [x, y, z] = [ox, oy, oz];
  if (basis) {
    x = along(mark.at, basis.right);
    y = along(mark.at, basis.up);
    z = along(mark.at, basis.normal);
  }
  if (mark.infinite) return (v * (x * axis[0] + y * axis[1] + z * axis[2])) / z - f;
  if (moves === 'front') {
    x -= shiftMm + pivot.x;
    y -= riseMm + pivot.y;
  }
  z -= v;
  // A mark that a step would put behind the lens is as far off as can be.
  const ahead = Math.max(z, 1e-3 * f);
  return (v * (x * axis[0] + y * axis[1] + z * axis[2] - f)) / ahead - f;
}

/** About how much a hand leans before things stop being straight. */
const LEAN_SCALE_RAD = 0.08;
/** The same for the magnification. */
const FOCUS_SCALE = 0.03;
/** Past infinity by half the focal length, and past any bellows. */
const LEAST_MAGNIFICATION = -0.5;
const MOST_MAGNIFICATION = 12;
/** A hair of preference for standing straight, mm for each radian. */
const REST = 2e-6;

/**
 * @returns the least f-number within everything asked, or the nearest to it with `shortMm` > 0
 */
export function solveFocus(question: SolveQuestion): Solved {
  const { freedom, sharp, soft, cover, budget = newBudget() } = question;
  const [lowA, highA, lowB, highB] = ends(freedom);
  const leanLimited = freedom.kind !== 'turned' && freedom.leanDeg < 90;
  const cosLean = leanLimited ? Math.cos(radians(freedom.leanDeg)) : 0;
  const [leastM, greatestM] = question.magnification;
  const corners = cover ? CORNERS.map((corner) => frameCorner(cover.frame, corner)) : [];
  const cosCover = cover ? Math.cos(cover.halfAngleRad) : 0;
  const limits = (leanLimited ? 1 : 0) + corners.length;

  const fill = (p: Float64Array, out: Float64Array): void => {
    const at = pose(question, p[0]!, p[1]!);
    const f = question.focalLengthMm(p[2]!);
    const v = (f * (1 + p[2]!)) / at.axis[2];
    let k = 0;
    for (const mark of sharp) out[k++] = missMm(question, at, f, v, mark);
    for (const mark of soft) out[k++] = missMm(question, at, f, v, mark);
    if (leanLimited) {
      const own = lensAxis(freedom.kind === 'rear' ? at.rear : at.lens);
      out[k++] = f * (own[2] - cosLean);
    }
    for (const corner of corners) {
      const [x, y] = [corner.x + at.pivot.x, corner.y + at.pivot.y];
      const lit = (x * at.axis[0] + y * at.axis[1] + v * at.axis[2]) / Math.hypot(x, y, v);
      out[k++] = f * (lit - cosCover);
    }
  };

  const far = Math.max(leastM, LEAST_MAGNIFICATION);
  const near = Math.max(far, Number.isFinite(greatestM) ? greatestM : MOST_MAGNIFICATION);
  const rest = REST * question.focalLengthMm(0);
  const run = (sides: readonly (1 | -1)[], start: readonly number[]) =>
    minimax(
      {
        low: [lowA, lowB, far],
        high: [highA, highB, near],
        scale: [LEAN_SCALE_RAD, LEAN_SCALE_RAD, FOCUS_SCALE],
        rest: [rest, rest, 0],
        residuals: sharp.length,
        away: soft.map(({ blurMm }, i): Away => ({
          side: sides[i]!,
          least: question.widestFNumber * blurMm,
          perResidual: blurMm / question.cocMm,
        })),
        limits,
        fill,
        budget,
      },
      start,
    );

  const clamp = (value: number, low: number, high: number): number =>
    Math.min(high, Math.max(low, value));
  const start = [
    clamp(radians(question.start.tilt), lowA, highA),
    clamp(radians(question.start.swing), lowB, highB),
    clamp(question.start.magnification, far, near),
  ];
  const best = sidesOf(question, start).reduce<ReturnType<typeof run> | null>((found, sides) => {
    if (found && isSpent(budget)) return found;
    const next = run(sides, start);
    if (!found) return next;
    // Within what is asked first; then the stop that lets more light in.
    const better =
      next.short < found.short - 1e-9 ||
      (next.short < found.short + 1e-9 && next.largest < found.largest - 1e-12);
    return better ? next : found;
  }, null)!;

  const [a, b, m] = best.parameters as unknown as [number, number, number];
  const at = pose(question, a, b);
  const f = question.focalLengthMm(m);
  const v = (f * (1 + m)) / at.axis[2];
  return {
    lens: at.lens,
    rear: at.rear,
    axis: at.axis,
    focalLengthMm: f,
    imageDistanceMm: v,
    fNumber: best.largest / question.cocMm,
    depthsMm: sharp.map((mark) => {
      const miss = missMm(question, at, f, v, mark);
      return (v * f) / (miss + f);
    }),
    shortMm: best.short <= SHORT_MM ? 0 : best.short,
  };
}

/** Less than this is met: some thousand times finer than a hand sets. */
const SHORT_MM = 1e-7;

function ends(freedom: Freedom): [number, number, number, number] {
  if (freedom.kind === 'turned') {
    return [radians(freedom.lean[0]), radians(freedom.lean[1]), 0, 0];
  }
  const { tilt, swing } = freedom;
  return [radians(tilt[0]), radians(tilt[1]), radians(swing[0]), radians(swing[1])];
}

/** Soft marks may fall on either side of the plane; so many are tried in every way. */
const EVERY_WAY = 5;

/** On which side of the plane each soft mark is to fall: all ways, or where they lie at the start. */
function sidesOf(question: SolveQuestion, start: readonly number[]): (1 | -1)[][] {
  const { soft } = question;
  if (soft.length === 0) return [[]];
  if (soft.length <= EVERY_WAY) {
    return Array.from({ length: 2 ** soft.length }, (_, bits) =>
      soft.map((_mark, i) => ((bits >> i) & 1 ? -1 : 1)),
    );
  }
  const at = pose(question, start[0]!, start[1]!);
  const f = question.focalLengthMm(start[2]!);
  const v = (f * (1 + start[2]!)) / at.axis[2];
  const found = soft.map((mark): 1 | -1 => (missMm(question, at, f, v, mark) < 0 ? -1 : 1));
  return [found, found.map(() => 1 as const), found.map(() => -1 as const)];
}
