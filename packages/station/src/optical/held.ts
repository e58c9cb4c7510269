import { distanceAt, turnedAxis } from '@gangway/optics';
import { stanceOfStation } from '../document/standards.js';
import type { Station } from '../document/station.js';
import type { Setup } from './setup.js';

export type HeldOffInput = NonNullable<Station['held_off']>;

/** How much farther than its own register the sensor lies with no gap, mm; equal where not known. */
export const beyondMm = ({
  lens_register_mm: lens,
  body_register_mm: body,
}: HeldOffInput): number => (lens === undefined || body === undefined ? 0 : body - lens);

const STRAIGHT = stanceOfStation({
  movements: { rise_mm: 0, shift_mm: 0, tilt_deg: 0, swing_deg: 0 },
  movement_limits: { moves: 'front' },
});

/** The station as the held lens draws it: at its infinity mark, wide open, before the body. */
export function heldSetup(s: Setup, held: HeldOffInput): Setup {
  const f = s.engravedMm;
  const axis = turnedAxis({ leanDeg: held.lean_deg, turnDeg: held.turn_deg ?? 0 });
  const v = f + held.gap_mm + beyondMm(held);
  return {
    ...s,
    // A body in the hand has no standards: only the lens leans, against it.
    stance: STRAIGHT,
    focalLengthMm: f,
    fNumber: s.facts.lens.f_min * s.combined,
    pupil: { ...s.pupil, focalLengthMm: f, axisZ: axis[2] },
    axis,
    imageDistanceMm: v,
    lensCentre: [0, 0, v],
    frame: { ...s.frame, shiftMm: 0, riseMm: 0 },
  };
}

/** A setup as it is shot: of a lens in the hand, as the hand holds it. */
export const asShot = (s: Setup): Setup =>
  s.station.held_off ? heldSetup(s, s.station.held_off) : s;

const shot = new WeakMap<Station, Station>();

/**
 * The station as it is shot: held off the body the lens's widest stop acts, whatever its ring was
 * set to while it was mounted.
 */
export function stationShot(station: Station): Station {
  const widest = station.lens.f_min;
  if (!station.held_off || station.aperture === widest) return station;
  const before = shot.get(station);
  if (before) return before;
  const made = { ...station, aperture: widest };
  shot.set(station, made);
  return made;
}

/** What a held lens draws sharp straight ahead, from the sensor, m; Infinity at and past it. */
export function heldPlane({ focalLengthMm: f, axis, imageDistanceMm: v }: Setup) {
  const distanceMm = v > 0 ? distanceAt(f, axis[2], v) : Infinity;
  return {
    planeM: Number.isFinite(distanceMm) ? distanceMm / 1000 : null,
    pastInfinity: (v * axis[2]) / f - 1 < -1e-9,
  };
}

/** A station whose lens goes back onto its body. */
export function mountedAgain({ held_off: _, ...station }: Station): Station {
  return station;
}
