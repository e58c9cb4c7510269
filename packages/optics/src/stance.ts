import { axisFromSensor, lensAxis, sensorBasis, type TiltSwing } from './axis.js';
import type { Placing } from './placing.js';
import { dot, radians, type Vec3 } from './vector.js';

/**
 * How lens and back stand on the bed. Bed axes: x right, y up, z along the bed towards the scene,
 * origin in the middle of the back with nothing set. The camera's own axes are those of the sensor.
 */
export interface Standards {
  readonly lens: TiltSwing;
  /** Leans of the back about its own middle: top away and turned right positive. */
  readonly rear: TiltSwing;
  /** Rise and shift of each standard in the picture's sense, mm. */
  readonly front: { readonly riseMm: number; readonly shiftMm: number };
  readonly back: { readonly riseMm: number; readonly shiftMm: number };
  /** How far the lens's axis of tilt lies behind its centre. */
  readonly pivotMm: number;
  /** How far the back's axis of tilt lies below its middle (base tilt). */
  readonly rearPivotMm: number;
}

export interface SensorAxes {
  readonly right: Vec3;
  readonly up: Vec3;
  readonly normal: Vec3;
}

export interface Stance {
  /** Lens axis in the sensor's axes. */
  readonly axis: Vec3;
  /** The sensor's axes in the bed's; `still` where they are the same. */
  readonly basis: SensorAxes;
  readonly still: boolean;
  /** Image distance v = perMm × bed + plusMm; bed is what the bed reads with the lens straight. */
  readonly perMm: number;
  readonly plusMm: number;
  /** Lens centre from the middle of the back, and from the sensor mark, across and up the bed. */
  readonly fromBack: readonly [number, number];
  readonly fromMark: readonly [number, number];
  /** What the bed's reading leaves out of the lens's place along it: pivot, and base tilt. */
  readonly pivotAlongMm: number;
  readonly baseAlongMm: number;
}

const STRAIGHT: SensorAxes = { right: [1, 0, 0], up: [0, 1, 0], normal: [0, 0, 1] };

/** Where the standards put lens and sensor against each other, for any reading of the bed. */
export function stanceOf({ lens, rear, front, back, pivotMm, rearPivotMm }: Standards): Stance {
  const own = lensAxis(lens);
  const still = rear.tiltDeg === 0 && rear.swingDeg === 0;
  const basis = still ? STRAIGHT : sensorBasis(rear.tiltDeg, rear.swingDeg);
  const rho = radians(rear.tiltDeg);
  const pivotAlongMm = pivotMm * (own[2] - 1);
  const baseAlongMm = still ? 0 : rearPivotMm * Math.sin(rho);
  const baseUpMm = still ? 0 : rearPivotMm * (1 - Math.cos(rho));
  const fromMark = [front.shiftMm + pivotMm * own[0], front.riseMm + pivotMm * own[1]] as const;
  const fromBack = [fromMark[0] + back.shiftMm, fromMark[1] + back.riseMm + baseUpMm] as const;
  const [nx, ny, nz] = basis.normal;
  return {
    axis: still ? own : axisFromSensor(lens, rear),
    basis,
    still,
    perMm: nz,
    plusMm: nx * fromBack[0] + ny * fromBack[1] + nz * (pivotAlongMm + baseAlongMm),
    fromBack,
    fromMark,
    pivotAlongMm,
    baseAlongMm,
  };
}

export const imageDistanceOnBed = ({ perMm, plusMm }: Stance, bedMm: number): number =>
  perMm * bedMm + plusMm;

/** What to set on the bed for an image distance. */
export const bedReading = ({ perMm, plusMm }: Stance, imageDistanceMm: number): number =>
  (imageDistanceMm - plusMm) / perMm;

/** Where the lens stands along the bed from the middle of the back. */
const alongBed = ({ basis, fromBack }: Stance, imageDistanceMm: number): number =>
  (imageDistanceMm - basis.normal[0] * fromBack[0] - basis.normal[1] * fromBack[1]) /
  basis.normal[2];

/** Centre of the back in picture coordinates: shift (x) and rise (y) as they act. */
export function backCentre(stance: Stance, imageDistanceMm: number): { x: number; y: number } {
  const { basis, fromBack } = stance;
  const t: Vec3 = [fromBack[0], fromBack[1], alongBed(stance, imageDistanceMm)];
  return { x: dot(t, basis.right), y: dot(t, basis.up) };
}

/** The lens centre from the sensor mark, in the sensor's axes. */
export function lensFromMark(stance: Stance, imageDistanceMm: number): Vec3 {
  const { basis, fromMark, baseAlongMm } = stance;
  const at: Vec3 = [fromMark[0], fromMark[1], alongBed(stance, imageDistanceMm) - baseAlongMm];
  return [dot(at, basis.right), dot(at, basis.up), dot(at, basis.normal)];
}

/**
 * How a millimetre of shift and of rise moves the centre of the back in the picture, the image
 * distance held: the standard moves in the bed's axes, and the bed is drawn to keep the focus.
 */
export function movementWays({ basis }: Pick<Stance, 'basis'>): Pick<Placing, 'shift' | 'rise'> {
  const { right, up, normal } = basis;
  const way = (i: 0 | 1): { x: number; y: number } => {
    const along = -normal[i] / normal[2];
    return { x: right[i] + along * right[2], y: up[i] + along * up[2] };
  };
  return { shift: way(0), rise: way(1) };
}

/** How the lens centre goes, in the sensor's axes, with a millimetre of a movement so made. */
export function lensTravel(
  stance: Stance,
  movement: 'shift' | 'rise',
  standard: 'front' | 'rear',
): Vec3 {
  const { basis } = stance;
  const i = movement === 'shift' ? 0 : 1;
  const along = -basis.normal[i] / basis.normal[2];
  const at: Vec3 = standard === 'rear' ? [0, 0, along] : i === 0 ? [1, 0, along] : [0, 1, along];
  return [dot(at, basis.right), dot(at, basis.up), dot(at, basis.normal)];
}
