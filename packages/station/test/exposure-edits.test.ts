import {
  evaluate,
  exposureWays,
  parseStation,
  readAs,
  readingKept,
  stationUpdate,
  withDevelopment,
  withExposure,
  withFilm,
  withFilter,
  withoutFilm,
  withReadAs,
  type Exposure,
  type KitItemOf,
  type Station,
  type Stored,
} from '../src/index.js';
import { station, type Given } from './helpers/mosaic.js';

const place = (exposure: Exposure, given: Given = {}): Station => station({ ...given, exposure });
const timeOf = (of: Station): number | null => evaluate(of).exposure!.time_s;

describe('a reading', () => {
  const read = place({ iso: 100, meter: { time_s: 1 / 8 } }, { aperture: 8 });

  it('stays what it was when stop and sensitivity change: f/16 and ISO 400 together take as long', () => {
    const stopped = readingKept({ ...read, aperture: 16 }, read);
    expect(stopped.exposure!.meter).toEqual({ time_s: 1 / 8, f_number: 8 });
    expect(timeOf(stopped)).toBeCloseTo(1 / 2, 12);
    const faster = readingKept(withExposure(stopped, { iso: 400 }), stopped);
    expect(faster.exposure!.meter).toEqual({ time_s: 1 / 8, f_number: 8, iso: 100 });
    expect(timeOf(faster)).toBeCloseTo(1 / 8, 12);
    // Where it already says so, it is left alone.
    const back = readingKept<Station>({ ...faster, aperture: 8 }, faster);
    expect(back.exposure!.meter).toBe(faster.exposure!.meter);
  });

  it('a new one is of the stop that is set with it, and EV has no stop', () => {
    const anew = {
      ...read,
      aperture: 16,
      exposure: { ...read.exposure, meter: { time_s: 1 / 2 } },
    };
    expect(readingKept<Station>(anew, read)).toBe(anew);
    const ev = place({ meter: { ev: 9 } }, { aperture: 8 });
    const stopped = { ...ev, aperture: 16 };
    expect(readingKept(stopped, ev)).toBe(stopped);
  });

  it('told another way is the same light, and there and back the same time', () => {
    // f/8 at 1/8 s is EV 9 (ISO 2720, from memory).
    const ev = withReadAs(read, 'ev');
    expect(ev.exposure!.meter).toEqual({ ev: 9 });
    const spots = withReadAs(ev, 'spots');
    expect(spots.exposure!.meter).toEqual({ spots: [{ ev: 9 }] });
    expect(withReadAs(spots, 'time').exposure!.meter).toEqual({ time_s: 0.125 });
    for (const each of [ev, spots]) expect(timeOf(each)).toBeCloseTo(1 / 8, 9);
    const two = withExposure(read, { meter: { spots: [{ ev: 6 }, { ev: 12 }] } });
    expect(withReadAs(two, 'ev').exposure!.meter).toEqual({ ev: 9 });
  });

  it('is never made up: of none, none is made', () => {
    const none = place({ iso: 100 });
    for (const way of ['time', 'ev', 'spots'] as const) {
      const next = withReadAs(none, way);
      expect(timeOf(next)).toBeNull();
      expect(parseStation(next)).toMatchObject({ ok: true });
      expect(readAs(withReadAs(next, 'time'))).toBe('time');
    }
  });
});

describe('what is offered', () => {
  const wide: Given = { aperture: 8 };

  it('a centre filter evens out the corner by what it takes, and is offered once', () => {
    const dark = withExposure(
      place({ meter: { time_s: 1 } }, { ...wide, movements: { shift_mm: 10 } }),
      {},
    );
    const way = exposureWays(dark).find(({ id }) => id === 'centre filter')!;
    const corner = evaluate(dark).exposure!.corner_stops!;
    const [filter] = way.after.exposure!.filters!;
    expect(filter).toEqual({
      name: 'Centre filter',
      stops: Number(corner.toFixed(1)),
      centre: true,
    });
    expect(exposureWays(way.after).some(({ id }) => id === 'centre filter')).toBe(false);
  });

  it('stopping down goes to a stop the ring has, and the time is then in reach', () => {
    const bright = place(
      {
        meter: { time_s: 1 / 2000 },
        shutter: { kind: 'leaf', fastest_s: 1 / 500, steps: 'third' },
      },
      { aperture: 7.3 },
    );
    const way = exposureWays(bright).find(({ id }) => id === 'stop down');
    const thirds = 6 * Math.log2(way!.after.aperture);
    expect(thirds).toBeCloseTo(Math.round(thirds), 9);
    expect(evaluate(way!.after).exposure!.problems.map(({ code }) => code)).not.toContain(
      'too_short',
    );
  });
});

describe('from the kit', () => {
  const stored = {
    id: 'd0000000-0000-4000-8000-000000000001',
    revision: 3,
    document: {
      kind: 'film',
      name: 'Sheet film, slow',
      iso: 50,
      range_stops: 7,
      reciprocity: { exponent: 1.31, from_s: 1 },
      developments: [
        { name: 'soft', iso: 32, range_stops: 9.5 },
        { name: 'pushed', iso: 100, push_stops: 1, range_stops: 6 },
      ],
    } satisfies KitItemOf<'film'>,
  };
  const bare = place({ meter: { time_s: 2, iso: 50 }, scene_range_stops: 9 });
  const loaded = withFilm(bare, stored);

  it('a film brings its sensitivity, its answer and its range, and takes them with it', () => {
    expect(loaded.exposure).toMatchObject({
      iso: 50,
      medium_range_stops: 7,
      reciprocity: { exponent: 1.31 },
      film: { name: 'Sheet film, slow', origin: { kit_id: stored.id, kit_revision: 3 } },
    });
    expect(parseStation(loaded).ok).toBe(true);
    const out = withoutFilm(loaded);
    expect(out.exposure).toEqual(bare.exposure);
    // The same after it was stored and read again.
    expect(withoutFilm(JSON.parse(JSON.stringify(loaded)) as Station)).toEqual(out);
    const own = withExposure(loaded, { medium_range_stops: 8 });
    expect(withoutFilm(own).exposure).toMatchObject({ medium_range_stops: 8 });
  });

  it('a film or filter that changed in the kit is told, and what was set by hand stays', () => {
    const filter = {
      id: 'd0000000-0000-4000-8000-000000000002',
      revision: 1,
      document: {
        kind: 'filter',
        name: 'Orange',
        thread_mm: 82,
        clear_diameter_mm: 79,
        thickness_mm: 5,
        stops: 1,
      } satisfies KitItemOf<'filter'>,
    };
    const on = withFilter(withExposure(loaded, { iso: 40 }), filter) as Station;
    const kit: Stored[] = [
      {
        ...stored,
        revision: 4,
        document: { ...stored.document, iso: 64, reciprocity: { exponent: 1.4, from_s: 1 } },
      },
      { ...filter, revision: 2, document: { ...filter.document, stops: 1.5 } },
    ];
    const find = (id: string) => kit.find((each) => each.id === id);
    const { updates, after } = stationUpdate(on, find);
    expect(updates.map(({ name }) => name)).toEqual(['Sheet film, slow', 'Orange']);
    expect(after.exposure).toMatchObject({
      iso: 40,
      reciprocity: { exponent: 1.4, from_s: 1 },
      film: { iso: 64 },
      filters: [{ name: 'Orange', stops: 1.5 }],
    });
    expect(parseStation(after).ok).toBe(true);
    expect(stationUpdate(after, find).updates).toEqual([]);
  });

  it('the development that holds the scene is offered, exposed at its own sensitivity', () => {
    const [way] = exposureWays(loaded);
    expect(way!.title).toBe('Develop it soft');
    expect(way!.after.exposure).toMatchObject({
      development: 'soft',
      iso: 32,
      medium_range_stops: 9.5,
    });
    const report = evaluate(way!.after).exposure!;
    expect(report.covers_range).toBe(true);
    expect(report.time_s).toBeCloseTo((2 * 50) / 32, 9);
    expect(withDevelopment(way!.after, null).exposure).toEqual(loaded.exposure);
    expect(withoutFilm(way!.after).exposure).toEqual(bare.exposure);
  });

  it('a filter of which the kit does not say what it takes is not put on as if it took nothing', () => {
    const filter: Stored<KitItemOf<'filter'>> = {
      id: 'd0000000-0000-4000-8000-000000000002',
      revision: 1,
      document: {
        kind: 'filter',
        name: 'Dark',
        thread_mm: 82,
        clear_diameter_mm: 79,
        thickness_mm: 5,
      },
    };
    expect(withFilter(bare, filter)).toMatch(/does not say how much light “Dark” takes/);
    const centre = withFilter(bare, {
      ...filter,
      document: { ...filter.document, stops: 1.5, centre: true },
    }) as Station;
    expect(centre.exposure!.filters).toEqual([
      expect.objectContaining({ name: 'Dark', stops: 1.5, centre: true }),
    ]);
    expect(parseStation(centre).ok).toBe(true);
  });
});
