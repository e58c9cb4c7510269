import { allowedTravel, bisect, toSet, turnIn, type Keep, type TurnedIn } from '@gangway/optics';
import type { Station } from '../document/station.js';
import { setupOf, type Setup } from '../optical/setup.js';
import { rounded } from '../words/rounded.js';

export interface TurnInReport {
  yaw_deg: number;
  /** Null when what is to be kept would lie 90° or more off. */
  shift_mm: number | null;
  far_edge_lost_deg: number | null;
  stretch_before: { near: number; far: number };
  stretch_after: { near: number; far: number } | null;
  possible: boolean;
}

/** The shift to set for a place of the frame across the picture; it stays at its height. */
const setShift = (s: Setup, shiftMm: number): number =>
  toSet(s.placing, { x: shiftMm, y: s.frame.riseMm }).shiftMm;

/** Whether circle and mechanism let the back shift so far, the rise as set. */
function reached(s: Setup, shiftMm: number): boolean {
  const { low, high } = allowedTravel(s.cone, s.frame, s.placing.shift);
  const set = setShift(s, shiftMm);
  const moved = set - s.set.shiftMm;
  const [least, most] = s.mechanism.shift;
  return (
    moved >= low - 1e-9 &&
    moved <= high + 1e-9 &&
    set >= least - 1e-9 &&
    set <= most + 1e-9 &&
    Math.hypot(set, s.set.riseMm) <= s.mechanism.radialMm + 1e-9
  );
}

function turned(s: Setup, yawDeg: number, keep: Keep): TurnedIn | null {
  return turnIn(s.frame, s.imageDistanceMm, yawDeg, keep);
}

export function reportTurnIn(s: Setup, asked: NonNullable<Station['turn_in']>): TurnInReport {
  const { yaw_deg, keep } = asked;
  const found = turned(s, yaw_deg, keep);
  return {
    yaw_deg: yaw_deg + 0,
    shift_mm: found && setShift(s, found.shiftMm) + 0,
    far_edge_lost_deg: found && found.farEdgeLostDeg + 0,
    stretch_before: (found ?? turned(s, 0, keep))!.before,
    stretch_after: found && found.after,
    possible: found !== null && reached(s, found.shiftMm),
  };
}

/** A camera turned further sees the kept thing edge on. */
const MOST_DEG = 80;

/** How far the camera may turn towards a side before circle or mechanism ends the shift, degrees. */
export function mostTurnIn(s: Setup, keep: Keep, side: -1 | 1): number {
  const serves = (deg: number): boolean => {
    const found = turned(s, side * deg, keep);
    return found !== null && reached(s, found.shiftMm);
  };
  if (!serves(0)) return 0;
  return serves(MOST_DEG) ? MOST_DEG : bisect(0, MOST_DEG, serves);
}

/** The station with the turn made: camera yawed, frame shifted back, nothing else touched. */
export function withTurnIn(s: Setup): Station {
  const { station } = s;
  const { turn_in: asked, ...rest } = station;
  const found = asked && turned(s, asked.yaw_deg, asked.keep);
  if (!found) return station;
  const yaw = ((station.camera.yaw_deg + asked.yaw_deg + 540) % 360) - 180;
  return {
    ...rest,
    camera: { ...station.camera, yaw_deg: rounded(yaw, 6) },
    movements: {
      ...station.movements,
      shift_mm: rounded(setShift(s, found.shiftMm), 3),
    },
  };
}

/** {@link mostTurnIn} for a station as it stands. */
export const mostTurnInOf = (station: Station, keep: Keep, side: -1 | 1): number =>
  mostTurnIn(setupOf(station), keep, side);

/** The station with its planned turn made; itself where none can be. */
export const turnedIn = (station: Station): Station => withTurnIn(setupOf(station));
