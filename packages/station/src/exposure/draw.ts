import { rigFacts } from '../optical/facts.js';
import { bellowsStops, distanceAtMagnificationMm, magnificationAt } from '@gangway/optics';
import type { Station } from '../document/station.js';
import { bareFocus, setupOf } from '../optical/setup.js';
import { drawMm, extensionSetMm } from '../optical/draw.js';
import { finite } from '../words/finite.js';
import { exposureReport } from './report.js';

/** What drawing a lens out does, lens and back straight. */
export interface DrawPoint {
  /** Of the lens as it is focused, which its distance and its light follow. */
  readonly setting: number;
  /** Of the standard past infinity’s place, mm along the bed. */
  readonly extensionMm: number;
  /** Between the standards; null without bellows. */
  readonly drawMm: number | null;
  /** From the sensor to the thing that is sharp; null: infinity. */
  readonly distanceM: number | null;
  /** On the back. */
  readonly magnification: number;
  readonly stops: number;
}

/** The lens and back straight, nothing shifted. */
const straightened = (station: Station): Station => ({
  ...station,
  movements: { rise_mm: 0, shift_mm: 0, tilt_deg: 0, swing_deg: 0 },
});

function pointAt(straight: Station): DrawPoint {
  const s = setupOf(straight);
  const bare = bareFocus(s);
  const extensionMm = extensionSetMm(s);
  const lengths = s.facts.lengths;
  const magnification = magnificationAt(s.focalLengthMm, 1, s.imageDistanceMm);
  return {
    setting: bare.magnification,
    extensionMm,
    drawMm: lengths.bellows ? drawMm(lengths, extensionMm) : null,
    distanceM: finite(distanceAtMagnificationMm(bare.focalLengthMm, bare.magnification) / 1000),
    magnification: magnification * s.factor,
    stops: bellowsStops(magnification, s.pupilRatio),
  };
}

const LEAST_M = 1e-4;

/** The station focused there, lens and back straight. */
const focusedTo = (station: Station, setting: number): Station => ({
  ...straightened(station),
  focus: setting < LEAST_M ? { distance_m: null } : { magnification: setting },
});

export const drawnTo = (station: Station, setting: number): DrawPoint =>
  pointAt(focusedTo(station, setting));

/** The time to give there, with the film’s own answer; null where none is known, and with flash. */
export function timeDrawnTo(station: Station, setting: number): number | null {
  const { exposure } = station;
  return exposure ? exposureReport(focusedTo(station, setting), exposure).given_s : null;
}

/** As the station is focused, lens and back straight. */
export const setDraw = (station: Station): DrawPoint => pointAt(straightened(station));

/** At a distance from the sensor; null nearer than the lens can focus at all. */
export function drawnForDistance(station: Station, distanceM: number): DrawPoint | null {
  const f = station.lens.focal_length_mm;
  if (distanceM * 1000 < 4 * f) return null;
  return pointAt({ ...straightened(station), focus: { distance_m: distanceM } });
}

/** Where nobody says how close a lens focuses, it is looked at down to a quarter of life size. */
const USUAL_END_M = 0.25;

export interface DrawRange {
  /** Settings from the farthest to the closest the rig goes. */
  readonly least: number;
  readonly greatest: number;
  /** Whether the rig’s own reach ends it, or only the look does. */
  readonly known: boolean;
}

export function drawRange(station: Station): DrawRange {
  const { leastM, greatestM } = rigFacts(station).reach;
  const least = Math.max(0, leastM);
  return greatestM === null || !Number.isFinite(greatestM) || greatestM <= least
    ? { least, greatest: least + USUAL_END_M, known: false }
    : { least, greatest: greatestM, known: true };
}

/** Along the draw, closer together near infinity, where distances run away. */
export function drawCurve(station: Station, count = 60): DrawPoint[] {
  const { least, greatest } = drawRange(station);
  return Array.from({ length: count + 1 }, (_, i) =>
    drawnTo(station, least + (greatest - least) * (i / count) ** 2),
  );
}

/** Distances people think in, far to near, m. */
const ROUND_M = [
  100, 50, 30, 20, 15, 10, 8, 6, 5, 4, 3.5, 3, 2.5, 2, 1.8, 1.6, 1.4, 1.2, 1, 0.9, 0.8, 0.7, 0.6,
  0.5, 0.45, 0.4, 0.35, 0.3, 0.25, 0.2, 0.15, 0.1,
];
const FEET_M = [
  300, 150, 100, 60, 50, 40, 30, 25, 20, 15, 12, 10, 9, 8, 7, 6, 5, 4.5, 4, 3.5, 3, 2.5, 2, 1.75,
  1.5, 1.25, 1,
].map((feet) => feet * 0.3048);

/** Round distances the rig reaches, infinity first where it does. */
export function distanceMarks(station: Station, units: 'metric' | 'feet' = 'metric'): DrawPoint[] {
  const { least, greatest } = drawRange(station);
  const reached = (units === 'feet' ? FEET_M : ROUND_M).flatMap((m) => {
    const point = drawnForDistance(station, m);
    return point && point.setting >= least && point.setting <= greatest ? [point] : [];
  });
  return least <= LEAST_M ? [drawnTo(station, 0), ...reached] : reached;
}

/** Thirds of a stop that the draw costs, from the first on. */
export function stopMarks(station: Station): DrawPoint[] {
  const { least, greatest } = drawRange(station);
  const s = setupOf(straightened(station));
  const marks: DrawPoint[] = [];
  for (let third = 1; third <= 24; third++) {
    const setting = (s.pupilRatio * (2 ** (third / 6) - 1)) / s.ahead;
    if (setting > greatest) break;
    if (setting >= least) marks.push(drawnTo(station, setting));
  }
  return marks;
}

/** Magnifications people set, that the rig reaches. */
const RATIOS = [1 / 20, 1 / 10, 1 / 8, 1 / 6, 1 / 5, 1 / 4, 1 / 3, 1 / 2, 2 / 3, 1, 1.5, 2, 3];

export function ratioMarks(station: Station): DrawPoint[] {
  const { least, greatest } = drawRange(station);
  const { factor, ahead } = setupOf(straightened(station));
  return RATIOS.map((ratio) => ratio / factor / ahead)
    .filter((setting) => setting >= least && setting <= greatest)
    .map((setting) => drawnTo(station, setting));
}

/** Whether the standard runs on a bed that a tape can be stuck to. */
export const hasBed = ({ chain }: Pick<Station, 'chain'>): boolean =>
  chain.some(({ kind }) => kind === 'view_camera');
