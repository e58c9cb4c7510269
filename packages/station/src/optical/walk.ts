import {
  backCentre,
  coneHalfAngleRad,
  frameIn,
  stanceOf,
  type Cone,
  type Frame,
  type Stance,
} from '@gangway/optics';
import { standardsOf } from '../document/standards.js';
import type { Station } from '../document/station.js';
import { ringClear } from './filter-ring.js';
import { coreMmAt, focused, type Setup } from './setup.js';
import { opticalState, type OpticalState } from './state.js';

/**
 * How the frame would stand with one setting changed and all others held. A scale asks hundreds of
 * times for one step of a hand: only what the setting moves is worked out again. For any value it says
 * what `opticalState` says of a setup made for it.
 */
export type Walk = (value: number) => OpticalState;

/** The state of a frame in a cone, its core and the ring of the lens's filter, the stop so wide. */
function stateIn(
  s: Setup,
  cone: Cone,
  coreRad: number,
  frame: Frame,
  pupilMm: number,
): OpticalState {
  const lies = frameIn(cone, coreRad, frame);
  if (lies === 'outside') return 'outside';
  if (!ringClear(s, cone, frame, pupilMm)) return 'ring';
  return lies === 'sharp' ? 'sharp' : 'soft';
}

/** The state with lens and back standing so and focused so; the stop is that of the setup. */
function posed(s: Setup, stance: Stance, f: number, v: number): OpticalState {
  const { axis } = stance;
  const middle = backCentre(stance, v);
  const { widthMm, heightMm } = s.frame;
  const frame = {
    widthMm,
    heightMm,
    shiftMm: middle.x + s.slide.x,
    riseMm: middle.y + s.slide.y,
  };
  const apexMm = (s.pupilRatio - 1) * f;
  const { halfAngleRad } = s.cone;
  const cone: Cone = { axis, imageDistanceMm: v, halfAngleRad, apexMm };
  return stateIn(s, cone, s.core.halfAngleRad, frame, s.engravedMm / s.fNumber);
}

/** The lens leaned about one of its axes, degrees. */
export function leanWalk(s: Setup, field: 'tilt_deg' | 'swing_deg'): Walk {
  const { station, facts } = s;
  const { rear, front, back, pivotMm, rearPivotMm } = standardsOf(station);
  const { tilt_deg, swing_deg } = station.movements;
  return (deg) => {
    const lens =
      field === 'tilt_deg'
        ? { tiltDeg: deg, swingDeg: swing_deg }
        : { tiltDeg: tilt_deg, swingDeg: deg };
    const stance = stanceOf({ lens, rear, front, back, pivotMm, rearPivotMm });
    const { focalLengthMm, imageDistanceMm } = focused(facts, station, stance);
    return posed(s, stance, focalLengthMm, imageDistanceMm);
  };
}

/** The focus set to a distance, m; Infinity at infinity. */
export const focusWalk =
  (s: Setup): Walk =>
  (distanceM) => {
    const focus = { distance_m: Number.isFinite(distanceM) ? distanceM : null };
    const { focalLengthMm, imageDistanceMm } = focused(s.facts, { focus }, s.stance);
    return posed(s, s.stance, focalLengthMm, imageDistanceMm);
  };

/** Another stop. */
export function stopWalk(s: Setup): Walk {
  const { facts, cocMm, combined, cone, frame } = s;
  return (fNumber) => {
    const { circleMm, halfAngleRad } = facts.at(fNumber);
    const coreMm = coreMmAt(facts.lens, fNumber, { circleMm, cocMm, combined });
    const coreRad = coneHalfAngleRad(coreMm, s.engravedMm, s.pupilRatio);
    const pupilMm = s.engravedMm / (fNumber * combined);
    return stateIn(s, { ...cone, halfAngleRad }, coreRad, frame, pupilMm);
  };
}

/** Rise or shift, where a ring keeps the spans from being told outright, mm. */
export function shiftWalk(
  s: Setup,
  made: (station: Station) => Setup,
  field: 'rise_mm' | 'shift_mm',
): Walk {
  return (mm) => {
    const movements = { ...s.station.movements };
    movements[field] = mm;
    return opticalState(made({ ...s.station, movements }));
  };
}
