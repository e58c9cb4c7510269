import type { FlatMeasured, SeriesMeasured } from '@gangway/frames';
import { parseKitItem } from '../src/kit/parse.js';
import type { MeasuredLens } from '../src/document/measured.js';
import { newStation } from '../src/document/new-station.js';
import type { Station } from '../src/document/station.js';
import { bestAllOver, centreSaid, circleMeasured, circleRows, isMeasured, lensFacts, withEdges, withFlat, withMeasuredUse, withSeries, zoneAt } from '../src/lens/index.js'; // prettier-ignore

const TOLD = { on: '14 March 2026', back: 'Small format back', files: ['a.jpg', 'b.jpg'] };

const flat = (more: Partial<FlatMeasured> = {}): FlatMeasured => ({
  centreMm: [0.4, -0.2],
  centreSigmaMm: 0.01,
  points: [
    { radiusMm: 0, stops: 0 },
    { radiusMm: 10, stops: 0.4 },
    { radiusMm: 20, stops: 1.2 },
  ],
  radiusMmAt: { 1: 18, 2: null, 3: null },
  circleMm: 66.4,
  slopeStops: 0,
  clipped: 0,
  problems: [],
  ...more,
});

const series = (more: Partial<SeriesMeasured> = {}): SeriesMeasured => ({
  stops: [
    { fNumber: 4, zones: [{ zone: 'centre', kept: 0.8 }, { zone: 'corner', kept: 0.5 }] },
    { fNumber: 8, zones: [{ zone: 'centre', kept: 1 }, { zone: 'corner', kept: 0.97 }] },
    { fNumber: 11, zones: [{ zone: 'centre', kept: 0.95 }, { zone: 'corner', kept: 1 }] },
    { fNumber: 16, zones: [{ zone: 'centre', kept: 0.82 }, { zone: 'corner', kept: 0.85 }] },
    { fNumber: 22, zones: [{ zone: 'centre', kept: 0.6 }, { zone: 'corner', kept: 0.62 }] },
  ],
  best: { centre: 8, edge: null, corner: 11 },
  diffractionFrom: 16,
  lags: [{ place: 'right', kept: 0.75, why: 'unknown' }],
  leanDeg: null,
  leanTowards: null,
  leftOut: 0,
  tiles: [],
  clipped: 0,
  problems: [],
  ...more,
}); // prettier-ignore

/** As the kit would keep it: what cannot be read there is no measurement. */
const kept = (measured: MeasuredLens): MeasuredLens => {
  const read = parseKitItem({
    format: 'gangway.kit-item',
    version: 1,
    kind: 'lens',
    name: 'Shift 24 f/3.5',
    focal_length_mm: 24,
    f_min: 3.5,
    f_max: 22,
    circle: [{ f_number: 3.5, diameter_mm: 60 }],
    measured,
  });
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return (read.value as { measured: MeasuredLens }).measured;
};

describe('what is measured is kept with the lens', () => {
  it('the circle, the falloff and its middle, from the white', () => {
    const measured = kept(withFlat(undefined, [{ fNumber: 8, found: flat() }, { fNumber: 3.5, found: flat({ circleMm: null, centreSigmaMm: 0.2 }) }], TOLD)); // prettier-ignore
    expect(measured.circle).toEqual([{ f_number: 8, diameter_mm: 66.4 }]);
    expect(measured.circle_by).toEqual({ stops: 4 });
    expect(measured.falloff!.map(({ f_number }) => f_number)).toEqual([3.5, 8]);
    expect(measured.centre_mm).toEqual({ x: 0.4, y: -0.2 });
    expect([measured.on, measured.back, measured.files]).toEqual(['14 March 2026', 'Small format back', ['a.jpg', 'b.jpg']]); // prettier-ignore
    expect(centreSaid(measured)).toBe(
      'its middle lies 0.4 mm right and 0.2 mm below of the mount’s',
    );
  });

  it('a stop measured again takes the place of the last, and the rest stays', () => {
    const first = withFlat(undefined, [{ fNumber: 8, found: flat() }], TOLD);
    const both = withSeries(first, series(), 21.6, { ...TOLD, files: ['c.jpg'] });
    const again = kept(withFlat(both, [{ fNumber: 8, found: flat({ circleMm: 65 }) }, { fNumber: 11, found: flat() }], { on: '15 March 2026', files: ['d.jpg'] })); // prettier-ignore
    expect(again.circle).toEqual([{ f_number: 8, diameter_mm: 65 }, { f_number: 11, diameter_mm: 66.4 }]); // prettier-ignore
    expect(again.detail).toHaveLength(5);
    expect(again.files).toEqual(['a.jpg', 'b.jpg', 'c.jpg', 'd.jpg']);
    expect([again.on, again.back]).toEqual(['15 March 2026', 'Small format back']);
  });

  it('what was set to the ideal to compare is used again', () => {
    expect(withSeries({ use: false, on: 'once' }, series(), 21.6, TOLD).use).toBeUndefined();
  });

  it('edges: the last of a zone counts, from the middle outwards', () => {
    const edge = (zone: 'centre' | 'corner', mtf50CyMm: number, radiusMm: number) => ({ fNumber: 8, zone, mtf50CyMm, radiusMm, sharpened: false }); // prettier-ignore
    const measured = kept(withEdges(undefined, [edge('corner', 40, 20), edge('centre', 70, 1), edge('corner', 44, 19)], TOLD)); // prettier-ignore
    expect(measured.sharpness).toEqual([
      { f_number: 8, zones: [{ zone: 'centre', radius_mm: 1, mtf50_cy_mm: 70 }, { zone: 'corner', radius_mm: 19, mtf50_cy_mm: 44 }] }, // prettier-ignore
    ]);
    const odd = withEdges(measured, [{ ...edge('centre', 90, 1), sharpened: true }], TOLD).odd;
    expect(odd).toEqual(['Edges: a file was sharpened; its figures flatter the lens.']);
    expect([0.1, 0.5, 0.9].map(zoneAt)).toEqual(['centre', 'edge', 'corner']);
  });

  it('what was odd is said once, and goes when it is measured again without', () => {
    const odd = withSeries(undefined, series(), 21.6, TOLD);
    expect(odd.odd).toEqual(['Every stop: the right side lags: 75 % of the detail opposite, leaned or decentred, or it lay nearer or farther.']); // prettier-ignore
    const flatToo = withFlat(odd, [{ fNumber: 8, found: flat({ slopeStops: 0.34 }) }], TOLD);
    expect(flatToo.odd).toHaveLength(2);
    expect(withSeries(flatToo, series({ lags: [] }), 21.6, TOLD).odd).toEqual(['Flat field: the light fell by 0.3 stops to one side, which was taken off.']); // prettier-ignore
  });
});

describe('what is said of it', () => {
  it('names the stops that serve all over, what diffraction takes, and the side that lags', () => {
    const measured = withSeries(undefined, series(), 21.6, TOLD);
    expect(lensFacts(measured).map(({ figure, words }) => `${figure} ${words}`)).toEqual([
      'f/8 to f/11 sharp to the corners',
      'f/16 from here diffraction takes more than it gives',
      'right side lags 75 % of the detail opposite, leaned or decentred, or it lay nearer or farther',
    ]);
    expect(lensFacts(withSeries(undefined, series({ diffractionFrom: 22 }), 21.6, TOLD))[1]!.figure).toBe('f/16'); // prettier-ignore
    expect(bestAllOver(measured)).toBe(8);
    expect(lensFacts({})).toEqual([]);
    expect(bestAllOver({})).toBeNull();
  });

  it('sets the given circle beside the measured, stop by stop', () => {
    const lens = { circle: [{ f_number: 3.5, diameter_mm: 60 }, { f_number: 8, diameter_mm: 67 }], measured: withFlat(undefined, [{ fNumber: 8, found: flat() }], TOLD) }; // prettier-ignore
    expect(circleRows(lens)).toEqual([
      { fNumber: 3.5, givenMm: 60, measuredMm: null },
      { fNumber: 8, givenMm: 67, measuredMm: 66.4 },
    ]);
    expect([isMeasured(lens), isMeasured({})]).toEqual([true, false]);
  });
});

describe('the measured lens and the ideal', () => {
  const station = newStation('Test');
  const measured = withFlat(undefined, [{ fNumber: 5.6, found: flat() }, { fNumber: 11, found: flat() }], TOLD); // prettier-ignore
  const own = { ...station, lens: { ...station.lens, measured } };

  it('are changed for each other and back, and nothing else changes', () => {
    const ideal = withMeasuredUse(own, false);
    expect(ideal.lens.measured).toEqual({ ...measured, use: false });
    expect(withMeasuredUse(ideal, true)).toEqual(own);
    expect(withMeasuredUse(station, false)).toBe(station);
  });

  it('a circle is the lens’s own only within the stops that were measured, while it is used', () => {
    const at = (of: Station, stops: number[]): boolean[] => stops.map((stop) => circleMeasured(of.lens, stop)); // prettier-ignore
    expect(at(own, [4, 5.6, 8, 11, 16])).toEqual([false, true, true, true, false]);
    expect(at(withMeasuredUse(own, false), [5.6, 8])).toEqual([false, false]);
    expect(circleMeasured(station.lens, 8)).toBe(false);
  });
});
