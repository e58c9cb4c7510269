import {
  airyDiameterUm,
  effectiveFNumber,
  engravedStops,
  magnificationAt,
  depthOfField,
} from '@gangway/optics';
import type { Station } from '../document/station.js';
import { setupOf } from '../optical/setup.js';
import { rounded } from '../words/rounded.js';

export interface CloseUpStop {
  readonly fNumber: number;
  readonly effective: number;
  /** Near limit to far limit, mm; null: no end. */
  readonly depthMm: number | null;
  readonly airyUm: number;
}

/** Close work, magnification first. */
export interface CloseUp {
  /** On the back. */
  readonly magnification: number;
  readonly effective: number;
  readonly stopsLost: number;
  readonly depthMm: number | null;
  /** Sharp from and to, from the sensor; the far one null where it has no end. */
  readonly limitsMm: readonly [number, number | null];
  /** From the sensor to the lens centre. */
  readonly imageDistanceMm: number;
  /** From the lens centre to its front; null where it is not known. */
  readonly frontMm: number | null;
  /** What the back sees, across and up, mm. */
  readonly seenMm: readonly [number, number];
  /** From the subject to the sensor. */
  readonly subjectToSensorMm: number | null;
  /** From the subject to the front of the lens; null when it is not known where that lies. */
  readonly workingMm: number | null;
  readonly subjectToLensMm: number | null;
  readonly focalLengthMm: number;
  /** Shorter than engraved: the lens breathes. */
  readonly breathes: boolean;
  readonly stops: readonly CloseUpStop[];
}

export function closeUp(station: Station): CloseUp {
  const s = setupOf(station);
  const { focalLengthMm: f, imageDistanceMm: v, axis, pupilRatio, factor, frame } = s;
  const m = magnificationAt(f, axis[2], v);
  const at = (fNumber: number): CloseUpStop => {
    const depth = depthOfField(s.pupil, v, fNumber * s.combined, s.cocMm);
    const effective = effectiveFNumber(fNumber * s.combined, m, pupilRatio) * factor;
    return {
      fNumber,
      effective,
      depthMm: Number.isFinite(depth.farMm) ? depth.farMm - depth.nearMm : null,
      airyUm: airyDiameterUm(effective),
    };
  };
  const now = at(station.aperture);
  const ahead = m > 1e-9 ? v / m : Infinity;
  const toLens = Number.isFinite(ahead) ? ahead : null;
  const front = frontAheadMm(station);
  const depth = depthOfField(s.pupil, v, s.fNumber, s.cocMm);
  const shown = m * factor;
  return {
    magnification: shown,
    effective: now.effective,
    stopsLost: 2 * Math.log2(now.effective / (station.aperture * s.combined * factor)),
    depthMm: now.depthMm,
    limitsMm: [depth.nearMm, Number.isFinite(depth.farMm) ? depth.farMm : null],
    imageDistanceMm: v,
    frontMm: front,
    seenMm: [frame.widthMm / m, frame.heightMm / m],
    subjectToSensorMm: toLens === null ? null : toLens + v,
    workingMm: toLens === null || front === null ? null : toLens - front,
    subjectToLensMm: toLens,
    focalLengthMm: f,
    breathes: f < s.engravedMm * (1 - 1e-9),
    stops: engravedStops(station.lens.f_min, station.lens.f_max, 'whole').map(at),
  };
}

/** How far the lens's front lies ahead of its pupil: its thread, or the ring of its filter. */
const frontAheadMm = ({ lens }: Station): number | null =>
  lens.thread_ahead_of_pupil_mm ?? lens.filter?.ahead_of_pupil_mm ?? null;

/** Focused by magnification on the back. */
export function atMagnification(station: Station, magnification: number): Station {
  const s = setupOf(station);
  return { ...station, focus: { magnification: magnification / s.factor / s.ahead } };
}

/** Focused on a subject so far from the lens, mm; nearer than it can be imaged it stays as it is. */
export function withSubjectAt(station: Station, subjectToLensMm: number): Station {
  const s = setupOf(station);
  const m = s.focalLengthMm / (subjectToLensMm - s.focalLengthMm);
  return m > 0 && m <= LARGEST_M ? atMagnification(station, rounded(m * s.factor, 4)) : station;
}

/** No lens is moved further out by hand in a drawing. */
const LARGEST_M = 20;
