import { CIRCLE_ENDS_STOPS, type FlatMeasured, type Lag, type SeriesMeasured, type Zone } from '@gangway/frames'; // prettier-ignore
import type { MeasuredLens } from '../document/measured.js';
import { fixed } from '../words/format.js';

/** What measurements become when they are kept with a lens: what was measured before stays beside them. */

/** When, on what, and from which files. */
export interface MeasuredFrom {
  readonly on: string;
  readonly back?: string | undefined;
  readonly files: readonly string[];
}

const MOST_FILES = 200;
const MOST_ODD = 32;
const MOST_LETTERS = 400;

const lastOf = (list: readonly string[], most: number): string[] => [...new Set(list.map((each) => each.slice(0, MOST_LETTERS)))].slice(-most); // prettier-ignore

function from(before: MeasuredLens | undefined, { on, back, files }: MeasuredFrom): MeasuredLens {
  // What was set to the ideal to compare is used again: it was measured to be used.
  const { use: _, ...kept } = before ?? {};
  return {
    ...kept,
    on,
    ...(back === undefined ? {} : { back }),
    files: lastOf([...(kept.files ?? []), ...files], MOST_FILES),
  };
}

interface AtStop {
  readonly f_number: number;
}

/** New entries in the place of old ones of the same stop. */
function atStops<Entry extends AtStop>(
  before: readonly Entry[] | undefined,
  found: readonly Entry[],
): Entry[] {
  const stops = new Set(found.map(({ f_number }) => f_number));
  return [...(before ?? []).filter(({ f_number }) => !stops.has(f_number)), ...found].sort(
    (a, b) => a.f_number - b.f_number,
  );
}

const withOdd = (measured: MeasuredLens, about: string, odd: readonly string[]): MeasuredLens => {
  const all = lastOf([...(measured.odd ?? []).filter((each) => !each.startsWith(about)), ...odd.map((each) => `${about}${each}`)], MOST_ODD); // prettier-ignore
  const { odd: _, ...rest } = measured;
  return all.length > 0 ? { ...rest, odd: all } : rest;
};

const SLOPE_STOPS = 0.1;

export interface FlatAtStop {
  readonly fNumber: number;
  readonly found: FlatMeasured;
}

/** The circle and the falloff, from pictures of an evenly lit white. */
export function withFlat(
  before: MeasuredLens | undefined,
  stops: readonly FlatAtStop[],
  told: MeasuredFrom,
): MeasuredLens {
  const circle = stops.flatMap(({ fNumber, found: { circleMm } }) => circleMm === null ? [] : [{ f_number: fNumber, diameter_mm: circleMm }]); // prettier-ignore
  const falloff = stops
    .filter(({ found }) => found.points.length > 1)
    .map(({ fNumber, found: { points } }) => ({ f_number: fNumber, points: points.map(({ radiusMm, stops: fall }) => ({ radius_mm: radiusMm, stops: Math.max(0, fall) })) })); // prettier-ignore
  const known = stops.filter(({ found }) => found.centreMm !== null && !found.problems.includes('middle_unsure')); // prettier-ignore
  // The best known of them: it is one lens.
  const [best] = [...known].sort((a, b) => (a.found.centreSigmaMm ?? Infinity) - (b.found.centreSigmaMm ?? Infinity)); // prettier-ignore
  const centre = best?.found.centreMm;
  const slope = Math.max(0, ...stops.map(({ found }) => found.slopeStops ?? 0));
  const base = from(before, told);
  return withOdd(
    {
      ...base,
      ...(circle.length > 0 ? { circle: atStops(base.circle, circle), circle_by: { stops: CIRCLE_ENDS_STOPS } } : {}), // prettier-ignore
      ...(falloff.length > 0 ? { falloff: atStops(base.falloff, falloff) } : {}),
      ...(centre ? { centre_mm: { x: centre[0], y: centre[1] } } : {}),
    },
    'Flat field: ',
    slope >= SLOPE_STOPS ? [`the light fell by ${fixed(slope, 1)} stops to one side, which was taken off.`] : [], // prettier-ignore
  );
}

/** Middle radius of each zone, as a share of the half diagonal. */
export const ZONE_RADII: Readonly<Record<Zone, number>> = { centre: 0.2, edge: 0.55, corner: 0.87 };

/** From here on, by share of the half diagonal, a place is of the next zone. */
export const zoneAt = (share: number): Zone => share < 0.35 ? 'centre' : share < 0.75 ? 'edge' : 'corner'; // prettier-ignore

const PLACE_WORDS: Readonly<Record<Lag['place'], string>> = {
  left: 'left side',
  right: 'right side',
  top: 'top',
  bottom: 'bottom',
  top_left: 'top left corner',
  top_right: 'top right corner',
  bottom_left: 'bottom left corner',
  bottom_right: 'bottom right corner',
};

export const placeWords = (place: Lag['place']): string => PLACE_WORDS[place];

const WHY_WORDS: Readonly<Record<Lag['why'], string>> = {
  leaned: 'leaned',
  decentred: 'decentred',
  unknown: 'leaned or decentred, or it lay nearer or farther',
};

/** “The right side lags, keeping 75 % (…).” */
export const lagSaid = ({ place, kept, why }: Lag): string =>
  `the ${placeWords(place)} lags: ${fixed(100 * kept, 0)} % of the detail opposite, ${WHY_WORDS[why]}.`;

/** Which stop keeps most, from the same picture at every stop. */
export function withSeries(
  before: MeasuredLens | undefined,
  found: SeriesMeasured,
  halfDiagonalMm: number,
  told: MeasuredFrom,
): MeasuredLens {
  const base = from(before, told);
  const detail = found.stops
    .filter(({ zones }) => zones.length > 0)
    .map(({ fNumber, zones }) => ({
      f_number: fNumber,
      zones: zones.map(({ zone, kept }) => ({ zone, radius_mm: ZONE_RADII[zone] * halfDiagonalMm, kept: Math.min(1, Math.max(0, kept)) })), // prettier-ignore
    }));
  const { diffraction_from: _, ...rest } = base;
  const lean = found.leanDeg === null ? [] : [`the plane of focus leans by ${fixed(found.leanDeg, 2)}°.`]; // prettier-ignore
  return withOdd(
    {
      ...rest,
      // Shares of one best: those of another day’s series are shares of another.
      ...(detail.length > 0 ? { detail } : {}),
      ...(found.diffractionFrom === null ? {} : { diffraction_from: found.diffractionFrom }),
    },
    'Every stop: ',
    [...found.lags.map(lagSaid), ...lean],
  );
}

export interface EdgeAt {
  readonly fNumber: number;
  readonly radiusMm: number;
  readonly zone: Zone;
  readonly mtf50CyMm: number;
  readonly sharpened: boolean;
}

/** How sharp it is, from edges; of several in one zone the last counts. */
export function withEdges(
  before: MeasuredLens | undefined,
  edges: readonly EdgeAt[],
  told: MeasuredFrom,
): MeasuredLens {
  const base = from(before, told);
  const byStop = new Map((base.sharpness ?? []).map(({ f_number, zones }) => [f_number, zones]));
  for (const { fNumber, zone, radiusMm, mtf50CyMm } of edges) {
    const others = (byStop.get(fNumber) ?? []).filter((each) => each.zone !== zone);
    const all = [...others, { zone, radius_mm: radiusMm, mtf50_cy_mm: mtf50CyMm }];
    byStop.set(fNumber, all.sort((a, b) => a.radius_mm - b.radius_mm)); // prettier-ignore
  }
  const sharpness = [...byStop].map(([f_number, zones]) => ({ f_number, zones })).sort((a, b) => a.f_number - b.f_number); // prettier-ignore
  return withOdd(
    { ...base, ...(sharpness.length > 0 ? { sharpness } : {}) },
    'Edges: ',
    edges.some(({ sharpened }) => sharpened)
      ? ['a file was sharpened; its figures flatter the lens.']
      : [],
  );
}
