import type { Units } from '../words/format.js';
import { blanksOf, blankSentence } from '../rig/blanks.js';
import { heldPlane, heldSetup } from '../optical/held.js';
import type { Rests } from '../words/assumptions.js';
import { VERDICT_SAYS, type VerdictCode, type VerdictSaid } from '../words/verdicts.js';
import { sensorPitchDeg } from '../optical/places.js';
import { readingOf } from './readings.js';
import type { Readings, Report } from './report.js';
import type { Station } from '../document/station.js';
import {
  beyondMechanism,
  opticalState,
  standingOf,
  type Standing,
  type State,
} from '../optical/state.js';
import { setupOf } from '../optical/setup.js';

/** A verdict as data: what was found, and the values its words are made of. */
export type VerdictFound = {
  readonly [Code in VerdictCode]: {
    readonly code: Code;
    readonly values: Parameters<(typeof VERDICT_SAYS)[Code]>[0];
  };
}[VerdictCode] & {
  readonly standing: Standing;
  /** What the figure would move with, where that is assumed. */
  readonly rests: readonly Rests[];
};

/** A verdict with its words. */
export interface Verdict extends VerdictSaid {
  readonly standing: Standing;
  readonly state: State;
  readonly rests: readonly Rests[];
}

/** The words of a verdict. */
export const verdictSaid = ({ code, values }: VerdictFound, units: Units): VerdictSaid =>
  (VERDICT_SAYS[code] as (values: unknown, units: Units) => VerdictSaid)(values, units);

const told = (found: VerdictFound, units: Units): Omit<Verdict, 'state'> => ({
  standing: found.standing,
  rests: found.rests,
  ...verdictSaid(found, units),
});

type Figures = Pick<Readings, 'coverage' | 'facade'>;

/** What keeps the façade out of the picture as everything is set; null when nothing does. */
function cutFound({ facade }: Figures): VerdictFound | null {
  if (!facade || facade.framed) return null;
  const { rise_needed_mm: neededMm, rise_before_foot_is_cut_mm: footMm } = facade;
  const cut = { standing: 'costs', rests: ['level'] } as const;
  if (neededMm === null) return { ...cut, code: 'facade_behind', values: null };
  return facade.fits
    ? { ...cut, code: 'facade_cut', values: { neededMm, footMm } }
    : { ...cut, code: 'facade_too_large', values: { fromM: facade.distance_needed_m } };
}

type Circle = VerdictFound & { readonly state: State };

function circleFound(station: Station, { coverage }: Pick<Readings, 'coverage'>): Circle {
  const beyond = beyondMechanism(station);
  const state = beyond.length > 0 ? 'beyond' : opticalState(setupOf(station));
  const standing = standingOf(state);
  const { worst_corner: corner, margin_mm: marginMm, sharp_margin_mm: softMm } = coverage;
  const margin = { corner, marginMm, fNumber: station.aperture };
  switch (state) {
    case 'beyond': {
      const movement = beyond[0]!;
      const values = { movement, value: station.movements[movement] ?? 0 };
      return { standing, state, rests: [], code: 'beyond', values };
    }
    case 'outside':
      return { standing, state, rests: ['circle'], code: 'outside', values: margin };
    case 'ring':
      return { standing, state, rests: [], code: 'ring', values: null };
    case 'soft': {
      const values = { ...margin, softMm };
      return { standing, state, rests: ['circle', 'core'], code: 'soft', values };
    }
    case 'sharp':
      return { standing, state, rests: ['circle', 'core'], code: 'sharp', values: margin };
  }
}

/** A lens in the hand wanders: where its circle lies is seen, not reckoned. */
const HELD_COVER: Circle = {
  standing: 'costs',
  state: 'soft',
  rests: [],
  code: 'held_cover',
  values: null,
};

/** The circle and the frame; where the circle serves, whether the façade is in it. */
export function coverFound(station: Station, report: Figures): Circle {
  if (station.held_off) return HELD_COVER;
  const circle = circleFound(station, report);
  if (circle.standing === 'outside' || station.mosaic) return circle;
  const cut = cutFound(report);
  return cut ? { ...cut, state: circle.state } : circle;
}

const withState = (found: Circle, units: Units): Verdict => ({
  ...told(found, units),
  state: found.state,
});

export const coverVerdict = (station: Station, report: Figures, units: Units = 'metric'): Verdict =>
  withState(coverFound(station, report), units);

/** How the frame stands in the circle, whatever is in front. */
export const circleVerdict = (station: Station, report: Pick<Readings, 'coverage'>): Verdict =>
  withState(circleFound(station, report), 'metric');

/** Less pitch than this is level. */
const LEVEL_DEG = 0.05;

/** View: whether the rig goes together, and how the camera stands. */
export function viewFound(station: Station, { rig }: Pick<Readings, 'rig'>): VerdictFound {
  const stops = rig.problems.filter(({ severity }) => severity === 'stop');
  if (stops.length > 0) {
    const values = { stops: stops.length, first: stops[0]!.message };
    return { standing: 'outside', rests: [], code: 'rig_stopped', values };
  }
  const pitchDeg = sensorPitchDeg(station);
  return Math.abs(pitchDeg) < LEVEL_DEG
    ? { standing: 'within', rests: ['level'], code: 'level', values: null }
    : { standing: 'costs', rests: ['level'], code: 'pitched', values: { pitchDeg } };
}

export const viewVerdict = (
  station: Station,
  report: Pick<Readings, 'rig'>,
): Omit<Verdict, 'state'> => told(viewFound(station, report), 'metric');

/** A rig on its own: what it becomes, and whether it goes together. */
export function rigFound(
  station: Station,
  { optics, rig }: Pick<Report, 'optics' | 'rig'>,
): VerdictFound {
  const focalMm = optics.focal_length_mm;
  const minds = rig.problems.length;
  const first = rig.problems[0]?.message ?? '';
  const near = !rig.reaches_infinity;
  if (rig.works === 'no') {
    return { standing: 'outside', rests: [], code: 'rig_no', values: { focalMm, first } };
  }
  if (rig.works === 'may') {
    const blank = blankSentence(blanksOf(station)[0]!);
    const values = { focalMm, near, unknown: rig.unknown.length, first: blank };
    return { standing: 'costs', rests: [], code: 'rig_may', values };
  }
  return minds === 0
    ? { standing: 'within', rests: [], code: 'rig_works', values: { focalMm } }
    : { standing: 'costs', rests: [], code: 'rig_minds', values: { focalMm, near, minds, first } };
}

export const rigVerdict = (
  station: Station,
  report?: Pick<Report, 'optics' | 'rig'>,
): Omit<Verdict, 'state'> => told(rigFound(station, report ?? readingOf(station)), 'metric');

/** Focus: whether the stop holds what must be sharp; without marks, what is sharp straight ahead. */
export function focusFound(
  station: Station,
  report: Pick<Readings, 'marks' | 'focus'>,
): VerdictFound {
  const asked = (report.marks ?? []).filter((_, i) => station.marks![i]!.must !== 'free');
  const holds = asked.filter((mark) => mark.holds).length;
  const all = holds === asked.length;
  const count = { holds, asked: asked.length };
  const { held_off: held, aperture: fNumber } = station;
  if (held) {
    const plane = heldPlane(heldSetup(setupOf(station), held));
    return {
      standing: all && !plane.pastInfinity ? 'within' : 'costs',
      rests: ['sharpness', 'held'],
      code: 'held_focus',
      values: { gapMm: held.gap_mm, ...plane, ...count },
    };
  }
  if (asked.length === 0) {
    const { near_m: nearM, far_m: farM } = report.focus;
    const values = { nearM, farM, fNumber };
    return { standing: 'within', rests: ['sharpness'], code: 'ahead', values };
  }
  const first = all ? null : asked.find((mark) => !mark.holds)!.label || 'a mark';
  return {
    standing: all ? 'within' : 'costs',
    rests: ['sharpness'],
    code: 'marks',
    values: { fNumber, ...count, first },
  };
}

export const focusVerdict = (
  station: Station,
  report: Pick<Readings, 'marks' | 'focus'>,
  units: Units = 'metric',
): Omit<Verdict, 'state'> => told(focusFound(station, report), units);
