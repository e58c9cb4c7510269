import { ENGRAVED } from '@gangway/optics';
import { readingKept } from '../document/reading-kept.js';
import type { Exposure, Station } from '../document/station.js';
import { fStop, stops, trimmed } from '../words/format.js';
import { withExposure, withPlainFilter } from './edits.js';
import { withDevelopment } from './film.js';
import { centreStops } from './light.js';
import { rangeAsked, rangeHeld, SPAN_ROUNDING } from './range.js';
import { exposureReport, type ExposureReport } from './report.js';

/** A change that answers what stands against an exposure. */
export interface ExposureWay {
  readonly id: string;
  readonly title: string;
  readonly detail: string;
  readonly after: Station;
}

type Propose = (station: Station, exposure: Exposure, report: ExposureReport) => ExposureWay[];

/** A stop that a ring has: an exact power of the sixth root of two, the next of them one way. */
const ringStop = (fNumber: number, round: (value: number) => number): number =>
  2 ** (round(6 * Math.log2(fNumber) + (round === Math.ceil ? -DUST : DUST)) / 6);

/** What arithmetic leaves behind is not a step more. */
const DUST = 1e-6;

/** A step between exposures that merges well: a stop and two thirds, common practice, no source. */
export const USUAL_BRACKET_STEP = 5 / 3;
const MOST_BRACKETS = 15;

/** Brackets that hold the scene; and a development that does. */
const holdRange: Propose = (station, { brackets, medium_range_stops: medium, film }, report) => {
  const held = rangeHeld(station, report);
  if (held?.covers !== false || !held.scene || medium === undefined) return [];
  const asked = rangeAsked(held.scene);
  const own = brackets && brackets.step_stops > 0 && !held.gaps ? brackets.step_stops : null;
  const step = own ?? Math.min(USUAL_BRACKET_STEP, medium);
  const frames = Math.max(1, Math.ceil((asked - medium - SPAN_ROUNDING) / step)) + 1;
  const bracketed: ExposureWay[] =
    frames > MOST_BRACKETS
      ? []
      : [
          {
            id: 'brackets',
            title: `${frames} exposures, ${stops(step)} apart`,
            detail: `hold ${stops(medium + (frames - 1) * step)}; nothing may move between them`,
            after: withExposure(station, { brackets: { frames, step_stops: step } }),
          },
        ];
  const softer = [...(film?.developments ?? [])]
    .filter(({ range_stops: range }) => (range ?? 0) >= asked)
    .sort((a, b) => a.range_stops! - b.range_stops!)[0];
  const ways: ExposureWay[] = [
    ...(softer
      ? [
          {
            id: 'development',
            title: `Develop it ${softer.name}`,
            detail: `holds ${stops(softer.range_stops!)}${softer.iso === undefined ? '' : `, exposed at ISO ${trimmed(softer.iso, 1)}`}`,
            after: withDevelopment(station, softer.name),
          },
        ]
      : []),
    ...bracketed,
  ];
  return ways.filter(
    ({ after }) => rangeHeld(after, exposureReport(after, after.exposure!))?.covers === true,
  );
};

/** Falloff from here on shows on an even wall; common practice, no source. */
const FALLOFF_SEEN = 0.7;
/** No centre filter is made that takes more; common practice, no source. */
const MOST_CENTRE = 3;

/** A corner that falls off: a centre filter, or an exposure more for the corners. */
const lightCorners: Propose = (station, exposure, { corner_stops: falls }) => {
  const on = centreStops(exposure);
  const corner = falls === null ? null : falls - on;
  if (corner === null || corner < FALLOFF_SEEN || corner > MOST_CENTRE) return [];
  const even = Number(corner.toFixed(1));
  const { brackets } = exposure;
  const frames = brackets?.frames ?? 1;
  const step = brackets && brackets.step_stops > 0 ? brackets.step_stops : 1;
  const more = Math.max(1, Math.ceil(corner / step - 1e-9));
  return [
    ...(on > 0
      ? []
      : [
          {
            id: 'centre filter',
            title: `Put on a centre filter of ${stops(even)}`,
            detail: `evens out the corner; costs ${stops(even)} of light`,
            after: withPlainFilter(station, { name: 'Centre filter', stops: even, centre: true }),
          },
        ]),
    ...(frames > 1 || more > 3
      ? []
      : [
          {
            id: 'corner bracket',
            // The middle one stays as metered: as many on either side.
            title: `Bracket ${1 + 2 * more}, ${stops(step)} apart`,
            detail: `the longest lights the corner, ${stops(more * step)} over`,
            after: withExposure(station, {
              brackets: { frames: 1 + 2 * more, step_stops: step },
            }),
          },
        ]),
  ];
};

/** A time the shutter is too slow for. */
const slower: Propose = (station, { shutter }, { problems, given_s: given }) => {
  if (given === null || !problems.some(({ code }) => code === 'too_short')) return [];
  const over = Math.ceil(3 * Math.log2(shutter!.fastest_s! / given) - 0.3) / 3;
  const to = ringStop(station.aperture * 2 ** (over / 2), Math.ceil);
  return [
    // Held off there is no stop but the widest.
    ...(!station.held_off && to <= station.lens.f_max * (1 + ENGRAVED)
      ? [
          {
            id: 'stop down',
            title: `Stop down to ${fStop(to)}`,
            detail: 'brings the time into the shutter’s reach; more is sharp',
            after: { ...station, aperture: to },
          },
        ]
      : []),
    {
      id: 'grey filter',
      title: `Put on a grey filter of ${stops(over)}`,
      detail: 'brings the time into the shutter’s reach',
      after: withPlainFilter(station, { name: 'Grey filter', stops: Number(over.toFixed(2)) }),
    },
  ];
};

/** One pop at full power, where several would show what moves more than once. */
const onePop: Propose = (station, _exposure, { flash }) => {
  if (!flash || flash.pops === 1 || station.held_off) return [];
  const full = ringStop(station.aperture / Math.sqrt(flash.power * flash.pops), Math.floor);
  return full >= station.lens.f_min
    ? [
        {
          id: 'one pop',
          title: `Open up to ${fStop(full)}`,
          detail: 'one pop does; less is sharp',
          after: { ...station, aperture: full },
        },
      ]
    : [];
};

const PROPOSALS: readonly Propose[] = [slower, holdRange, onePop, lightCorners];

/** Every proposal is tried on the station itself: one that leaves a stop standing is not made. */
export function exposureWays(station: Station): ExposureWay[] {
  const { exposure } = station;
  if (!exposure) return [];
  const report = exposureReport(station, exposure);
  const stopsOf = (of: ExposureReport): number =>
    of.problems.filter(({ severity }) => severity === 'stop').length;
  return PROPOSALS.flatMap((propose) => propose(station, exposure, report))
    .map((way) => ({ ...way, after: readingKept(way.after, station) }))
    .filter(({ after }) => stopsOf(exposureReport(after, after.exposure!)) <= stopsOf(report));
}
