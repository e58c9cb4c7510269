import { isSpent, newBudget, type Budget } from './budget.js';
import { lensAxis, type TiltSwing } from './axis.js';
import {
  backCentre,
  imageDistanceOnBed,
  lensFromMark,
  stanceOf,
  type Stance,
  type Standards,
} from './stance.js';
import { minimax, type Away, type MinimaxResult } from './minimax.js';
import { degrees, dot, radians, subtract, type Vec3 } from './vector.js';

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
  /** At a setting of the focus, told as the magnification a straight lens has there. */
  readonly focalLengthMm: (setting: number) => number;
  readonly pupilRatio: number;
  readonly cocMm: number;
  /** The widest stop, for blur that is wanted. */
  readonly widestFNumber: number;
  readonly sharp: readonly SolveMark[];
  readonly soft: readonly SoftMark[];
  readonly freedom: Freedom;
  /** Lens and back as they stand; what the freedom names is searched for. */
  readonly standards: Standards;
  /**
   * Settings the rig focuses between, Infinity where no end is known: stops and bellows limit where
   * the lens stands, whichever way it leans.
   */
  readonly setting: readonly [number, number];
  /** What has to lie in the cone: corners of the kept part, mm from the middle of the back. */
  readonly cover: {
    readonly corners: readonly { readonly x: number; readonly y: number }[];
    /** Of the lens that acts at infinity. */
    readonly halfAngleRad: number;
  } | null;
  readonly start: {
    readonly tilt: number;
    readonly swing: number;
    readonly setting: number;
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
  /** What to set on the bed. */
  readonly bedMm: number;
  /** The same as the magnification of a straight lens. */
  readonly setting: number;
  /** The least f-number that holds every sharp mark; 0 when all lie on the plane. */
  readonly fNumber: number;
  /** Image depth of each sharp mark, mm; Infinity or negative where it comes to no focus. */
  readonly depthsMm: readonly number[];
  /** By how much the circle, the focus or a wanted blur is missed, mm; 0 when all are met. */
  readonly shortMm: number;
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
      return { lens: { tiltDeg, swingDeg }, rear: question.standards.rear };
    case 'rear':
      return { lens: question.standards.lens, rear: { tiltDeg, swingDeg } };
    case 'turned': {
      const turn = radians(freedom.turnDeg);
      const [x, y, z] = [-Math.sin(a) * Math.sin(turn), -Math.sin(a) * Math.cos(turn), Math.cos(a)];
      return {
        lens: { tiltDeg: degrees(Math.asin(-y)), swingDeg: degrees(Math.atan2(x, z)) },
        rear: question.standards.rear,
      };
    }
  }
}

/** What a camera makes of two leans and a setting of the focus. */
interface Pose {
  readonly lens: TiltSwing;
  readonly rear: TiltSwing;
  readonly stance: Stance;
  readonly f: number;
  readonly v: number;
  readonly bed: number;
  /** The lens centre from the sensor mark, in the sensor's axes. */
  readonly centre: Vec3;
}

function pose(question: SolveQuestion, a: number, b: number, setting: number): Pose {
  const { lens, rear } = leaning(question, a, b);
  const { front, back, pivotMm, rearPivotMm } = question.standards;
  const stance = stanceOf({ lens, rear, front, back, pivotMm, rearPivotMm });
  const f = question.focalLengthMm(setting);
  const bed = f * (1 + setting);
  // A step that would put the sensor before the lens leaves it a hair behind.
  const v = Math.max(imageDistanceOnBed(stance, bed), 1e-3 * f);
  return { lens, rear, stance, f, v, bed, centre: lensFromMark(stance, v) };
}

/**
 * The signed blur of a mark at f/1, (p f)(v u − 1)/(1 + k u) with u = 1/q, mm: over the circle of
 * confusion it is the f-number the mark asks for, and its sign says on which side of the plane the
 * mark lies. With u = (P·a − f h)/(f P_z), h = 0 for a mark at infinity, it is smooth where q is not.
 */
function missMm(question: SolveQuestion, at: Pose, mark: SolveMark): number {
  const { stance, f, v, centre } = at;
  const { axis, basis, still } = stance;
  let x = mark.at[0];
  let y = mark.at[1];
  let z = mark.at[2];
  if (!still) {
    x = dot(mark.at, basis.right);
    y = dot(mark.at, basis.up);
    z = dot(mark.at, basis.normal);
  }
  let near = 0;
  if (!mark.infinite) {
    x -= centre[0];
    y -= centre[1];
    z -= centre[2];
    near = f;
  }
  const along = x * axis[0] + y * axis[1] + z * axis[2] - near;
  // A mark that a step would put behind the lens is as far off as can be.
  const inverse = along / (f * Math.max(z, 1e-3 * f));
  const { pupilRatio } = question;
  if (pupilRatio === 1) return f * (v * inverse - 1);
  const spread = 1 + (pupilRatio - 1) * f * axis[2] * inverse;
  return (pupilRatio * f * (v * inverse - 1)) / Math.max(spread, 1e-3);
}

interface Sought extends MinimaxResult {
  readonly sides: readonly (1 | -1)[];
}

/** About how much a hand leans before things stop being straight. */
const LEAN_SCALE_RAD = 0.08;
/** The same for the magnification. */
const FOCUS_SCALE = 0.03;
/** Past infinity by half the focal length, and past any bellows. */
const LEAST_MAGNIFICATION = -0.5;
const MOST_MAGNIFICATION = 12;
/** A lean is idle below this, and marks are held below this share of the focal length. */
const IDLE_RAD = 1e-6;
const IDLE_SHARE = 1e-7;
/** What a lean across must be worth: a share of the stop. */
const WORTH_LEANING = 0.003;
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
  const [leastM, greatestM] = question.setting;
  const corners = cover?.corners ?? [];
  const cosCover = cover ? Math.cos(cover.halfAngleRad) : 0;
  const limits = (leanLimited ? 1 : 0) + corners.length;

  const fill = (p: Float64Array, out: Float64Array): void => {
    const at = pose(question, p[0]!, p[1]!, p[2]!);
    let k = 0;
    for (let i = 0; i < sharp.length; i++) out[k++] = missMm(question, at, sharp[i]!);
    for (let i = 0; i < soft.length; i++) out[k++] = missMm(question, at, soft[i]!);
    if (leanLimited) {
      const own = lensAxis(freedom.kind === 'rear' ? at.rear : at.lens);
      out[k++] = at.f * (own[2] - cosLean);
    }
    if (corners.length === 0) return;
    const { axis } = at.stance;
    const middle = backCentre(at.stance, at.v);
    // Seen from the exit pupil.
    const apex = (question.pupilRatio - 1) * at.f;
    const z = at.v + apex * axis[2];
    for (const corner of corners) {
      const x = corner.x + middle.x + apex * axis[0];
      const y = corner.y + middle.y + apex * axis[1];
      const lit = (x * axis[0] + y * axis[1] + z * axis[2]) / Math.hypot(x, y, z);
      out[k++] = at.f * (lit - cosCover);
    }
  };

  const far = Math.max(leastM, LEAST_MAGNIFICATION);
  const near = Math.max(far, Number.isFinite(greatestM) ? greatestM : MOST_MAGNIFICATION);
  const f0 = question.focalLengthMm(0);
  const rest = REST * f0;
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

  /**
   * Marks in one line with the lens pull a lean across that line neither way, and a search begun on it
   * stays there; yet with the other lean at its end a little across may be worth while. Looked for
   * from halfway out, and taken only where a hand would see the difference.
   */
  function offTheLine(found: Sought): Sought {
    const lean = [
      [lowA, highA],
      [lowB, highB],
    ] as const;
    return lean.reduce<Sought>((kept, [low, high], i) => {
      const idle = low < 0 && high > 0 && Math.abs(found.parameters[i]!) < IDLE_RAD;
      if (!idle || found.largest < IDLE_SHARE * f0 || isSpent(budget)) return kept;
      const from = [...found.parameters];
      from[i] = (high > -low ? high : low) / 2;
      const next = { sides: found.sides, ...run(found.sides, from) };
      return next.short < kept.short + 1e-9 && next.largest < kept.largest * (1 - WORTH_LEANING)
        ? next
        : kept;
    }, found);
  }

  const clamp = (value: number, low: number, high: number): number =>
    Math.min(high, Math.max(low, value));
  const start = [
    clamp(radians(question.start.tilt), lowA, highA),
    clamp(radians(question.start.swing), lowB, highB),
    clamp(question.start.setting, far, near),
  ];
  const sought = sidesOf(question, start).reduce<Sought | null>((found, sides) => {
    if (found && isSpent(budget)) return found;
    const next = { sides, ...run(sides, start) };
    if (!found) return next;
    // Within what is asked first; then the stop that lets more light in.
    const better =
      next.short < found.short - 1e-9 ||
      (next.short < found.short + 1e-9 && next.largest < found.largest - 1e-12);
    return better ? next : found;
  }, null)!;
  const best = offTheLine(sought);

  const [a, b, setting] = best.parameters as unknown as [number, number, number];
  const at = pose(question, a, b, setting);
  return {
    lens: at.lens,
    rear: at.rear,
    axis: at.stance.axis,
    focalLengthMm: at.f,
    imageDistanceMm: at.v,
    bedMm: at.bed,
    setting,
    fNumber: best.largest / question.cocMm,
    depthsMm: sharp.map((mark) => depthMm(at, mark)),
    shortMm: best.short <= SHORT_MM ? 0 : best.short,
  };
}

/** q of a mark; Infinity or below zero where it comes to no focus. */
function depthMm({ stance, f, centre }: Pose, { at, infinite }: SolveMark): number {
  const { right, up, normal } = stance.basis;
  const far: Vec3 = [dot(at, right), dot(at, up), dot(at, normal)];
  if (infinite) return (f * far[2]) / dot(far, stance.axis);
  const p = subtract(far, centre);
  return (f * p[2]) / (dot(p, stance.axis) - f);
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
  const at = pose(question, start[0]!, start[1]!, start[2]!);
  const found = soft.map((mark): 1 | -1 => (missMm(question, at, mark) < 0 ? -1 : 1));
  return [found, found.map(() => 1 as const), found.map(() => -1 as const)];
}
