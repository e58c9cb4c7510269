import { atLeast, atMost } from '../words/rounded.js';
import {
  distance,
  distanceFrom,
  fixed,
  fStop,
  signed,
  trimmed,
  type Units,
} from '../words/format.js';
import { blanksOf, blankSentence } from '../rig/blanks.js';
import { heldPlane, heldSetup } from '../focus/held-setup.js';
import type { Rests } from './assumed.js';
import { sensorPitchDeg } from '../optical/places.js';
import { readings } from './readings.js';
import type { Readings, Report } from './report.js';
import type { Station } from '../document/station.js';
import {
  beyondMechanism,
  opticalState,
  standingOf,
  type Standing,
  type State,
} from '../optical/state.js';
import { setup } from '../optical/setup.js';
import { CORNER_NAMES, unitOf, sense, MOVEMENT_NAMES } from '../words/names.js';

export interface Verdict {
  readonly standing: Standing;
  readonly state: State;
  /** The largest figure of the step, and the words beside it. */
  readonly figure: string;
  readonly words: string;
  /** The whole verdict as one sentence, for lists and for those who listen. */
  readonly sentence: string;
  /** What the figure would move with, where that is assumed. */
  readonly rests: readonly Rests[];
}

/** What to say when a cone is open on one side and the margin has no end. */
const NO_END = '∞';

const figureOf = (margin: number | null): string => (margin === null ? NO_END : signed(margin, 1));

/** What keeps the façade out of the picture as everything is set; null when nothing does. */
function cutWords(
  report: Readings,
  units: Units,
): Pick<Verdict, 'figure' | 'words' | 'sentence'> | null {
  const { facade } = report;
  if (!facade || facade.framed) return null;
  const { rise_needed_mm: needed, rise_before_foot_is_cut_mm: foot } = facade;
  if (needed === null) {
    return {
      figure: 'Behind',
      words: 'the façade',
      sentence: 'The façade does not lie ahead of the camera.',
    };
  }
  if (!facade.fits) {
    const away = facade.distance_needed_m;
    return {
      figure: 'Cut',
      words:
        away === null ? 'façade does not fit' : `façade fits from ${distanceFrom(away, units)}`,
      sentence: `The façade does not fit into the frame from here${away === null ? '' : `; it would from ${distanceFrom(away, units)}`}.`,
    };
  }
  // Rounded towards what serves: 5.93 asked is 6.0.
  const least = fixed(atLeast(needed, 1), 1);
  const ask = `${least}${foot === null ? '' : ` to ${fixed(atMost(foot, 1), 1)}`}`;
  return {
    figure: `${least} mm`,
    words: 'of rise frames the façade',
    sentence: `The façade is cut as set; it asks for ${ask} mm of rise.`,
  };
}

/** A lens in the hand wanders: where its circle lies is seen, not reckoned. */
const HELD_COVER: Verdict = {
  standing: 'costs',
  state: 'soft',
  rests: [],
  figure: 'By eye',
  words: 'the lens is held off',
  sentence: 'The lens is held off the body; its circle wanders with the hand and is judged by eye.',
};

/** The circle and the frame; where the circle serves, whether the façade is in it. */
export function coverVerdict(station: Station, report: Readings, units: Units = 'metric'): Verdict {
  if (station.held_off) return HELD_COVER;
  const circle = circleVerdict(station, report);
  if (circle.standing === 'outside' || station.mosaic) return circle;
  const cut = cutWords(report, units);
  return cut ? { ...circle, standing: 'costs', ...cut, rests: ['level'] } : circle;
}

/** How the frame stands in the circle, whatever is in front. */
export function circleVerdict(station: Station, report: Readings): Verdict {
  const beyond = beyondMechanism(station);
  const state = beyond.length > 0 ? 'beyond' : opticalState(station, setup(station));
  const { margin_mm: margin, sharp_margin_mm: soft, worst_corner } = report.coverage;
  const corner = CORNER_NAMES[worst_corner];
  const standing = standingOf(state);
  const stop = fStop(station.aperture);
  switch (state) {
    case 'beyond': {
      const first = beyond[0]!;
      const value = station.movements[first] ?? 0;
      return {
        standing,
        state,
        rests: [],
        figure: `${fixed(Math.abs(value), 1)} ${unitOf(first)}`,
        words: `${sense(first, value)}, past the mechanism`,
        sentence: `The ${MOVEMENT_NAMES[first]} is set further than the mechanism goes.`,
      };
    }
    case 'outside':
      return {
        standing,
        state,
        rests: ['circle'],
        figure: figureOf(margin),
        words: `mm, ${corner} outside`,
        sentence: `The ${corner} corner lies ${fixed(Math.abs(margin ?? 0), 1)} mm outside the circle at ${stop}.`,
      };
    case 'ring':
      return {
        standing,
        state,
        rests: [],
        figure: 'Ring',
        words: 'cuts a corner',
        sentence:
          'The filter ring cuts into a corner; shift less or use a larger filter on a step-up ring.',
      };
    case 'soft':
      return {
        standing,
        state,
        rests: ['circle', 'core'],
        figure: figureOf(margin),
        words: 'mm to spare, corner soft',
        sentence: `The frame is covered at ${stop}; the ${corner} corner lies ${fixed(Math.abs(soft ?? 0), 1)} mm past the sharp core.`,
      };
    case 'sharp':
      return {
        standing,
        state,
        rests: ['circle', 'core'],
        figure: figureOf(margin),
        words: 'mm to spare',
        sentence: `The whole frame lies within the sharp core at ${stop}, ${margin === null ? 'with no end in sight' : `${fixed(margin, 1)} mm inside the circle`}.`,
      };
  }
}

/** View: whether the rig goes together, and how the camera stands. */
export function viewVerdict(station: Station, report: Readings): Omit<Verdict, 'state'> {
  const stops = report.rig.problems.filter(({ severity }) => severity === 'stop');
  if (stops.length > 0) {
    return {
      standing: 'outside',
      rests: [],
      figure: String(stops.length),
      words: 'to settle in the rig',
      sentence: stops[0]!.message,
    };
  }
  const sensor = sensorPitchDeg(station);
  if (Math.abs(sensor) < 0.05) {
    return {
      standing: 'within',
      rests: ['level'],
      figure: 'Level',
      words: 'verticals stay parallel',
      sentence: 'The sensor stands upright; verticals stay parallel.',
    };
  }
  const way = sensor > 0 ? 'up' : 'down';
  return {
    standing: 'costs',
    rests: ['level'],
    figure: `${fixed(Math.abs(sensor), 1)}°`,
    words: `${way}, verticals meet`,
    sentence: `The sensor points ${fixed(Math.abs(sensor), 1)}° ${way}; verticals meet ${sensor > 0 ? 'above' : 'below'}.`,
  };
}

/** A rig on its own: what it becomes, and whether it goes together. */
export function rigVerdict(
  station: Station,
  { optics, rig }: Pick<Report, 'optics' | 'rig'> = readings(station),
): Omit<Verdict, 'state'> {
  const figure = `${trimmed(optics.focal_length_mm, 1)} mm`;
  const minds = rig.problems.length;
  const first = rig.problems[0]?.message;
  const told = { figure, rests: [] };
  if (rig.works === 'no') {
    return { ...told, standing: 'outside', words: 'does not go together', sentence: first! };
  }
  const near = rig.reaches_infinity ? '' : ', near work only';
  if (rig.works === 'may') {
    const count = rig.unknown.length;
    const [blank] = blanksOf(station);
    return {
      ...told,
      standing: 'costs',
      words: `may work${near}, ${count} not known`,
      sentence: `May work: ${count} ${count === 1 ? 'thing is' : 'things are'} not known. ${blankSentence(blank!)}`,
    };
  }
  return minds === 0
    ? { ...told, standing: 'within', words: 'works', sentence: 'Nothing is wrong with this rig.' }
    : {
        ...told,
        standing: 'costs',
        words: `${rig.reaches_infinity ? 'works' : 'near work only'}, ${minds} ${minds === 1 ? 'warning' : 'warnings'}`,
        sentence: first!,
      };
}

/** Held off the body: what is sharp straight ahead, and how many marks are as wanted. */
function heldVerdict(
  station: Station,
  held: NonNullable<Station['held_off']>,
  asked: readonly { readonly holds: boolean }[],
  units: Units,
): Omit<Verdict, 'state'> {
  const { planeM, pastInfinity } = heldPlane(heldSetup(station, held));
  const holds = asked.filter((mark) => mark.holds).length;
  const figure = planeM === null ? (pastInfinity ? 'Past ∞' : '∞') : distance(planeM, units);
  return {
    standing: holds === asked.length && !pastInfinity ? 'within' : 'costs',
    rests: ['sharpness', 'held'],
    figure,
    words: asked.length === 0 ? 'sharp ahead, held off' : `ahead, ${holds} of ${asked.length} held`,
    sentence: `Held ${fixed(held.gap_mm, 1)} mm off the body it is sharp straight ahead at ${figure}; ${holds} of ${asked.length} marks are as they are wanted.`,
  };
}

/** Focus: whether the stop holds what must be sharp; without marks, what is sharp straight ahead. */
export function focusVerdict(
  station: Station,
  report: Readings,
  units: Units = 'metric',
): Omit<Verdict, 'state'> {
  const stop = fStop(station.aperture);
  const asked = (report.marks ?? []).filter((_, i) => station.marks![i]!.must !== 'free');
  if (station.held_off) return heldVerdict(station, station.held_off, asked, units);
  if (asked.length === 0) {
    const { near_m, far_m } = report.focus;
    const [near, far] = [distance(near_m, units), far_m === null ? '∞' : distance(far_m, units)];
    return {
      standing: 'within',
      rests: ['sharpness'],
      figure: near,
      words: `to ${far} is sharp ahead`,
      sentence: `Straight ahead it is sharp from ${near} to ${far === '∞' ? 'infinity' : far} at ${stop}. No marks are set.`,
    };
  }
  const holds = asked.filter((mark) => mark.holds).length;
  const all = holds === asked.length;
  const first = asked.find((mark) => !mark.holds);
  return {
    standing: all ? 'within' : 'costs',
    rests: ['sharpness'],
    figure: stop,
    words: `holds ${holds} of ${asked.length}`,
    sentence: all
      ? `${stop} holds all ${asked.length} marks as they are wanted.`
      : `${stop} holds ${holds} of ${asked.length} marks; ${first!.label || 'a mark'} is not as wanted.`,
  };
}
