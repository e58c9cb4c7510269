import { readFileSync } from 'node:fs';
import {
  benchOf,
  chainPartFrom,
  curesFor,
  filterFrom,
  isWhole,
  kitIdsIn,
  lensFrom,
  newRig,
  newStation,
  parseRig,
  parseStation,
  rigStation,
  stationUpdate,
  stopOf,
  withRig,
  type KitItemOf,
  type Stored,
  type WholeRig,
} from '../src/index.js';
import { codes, item, KIT, plain, problemsOf, rigOf } from './helpers/gear.js';
import { parsed } from './helpers/rigs.js';

describe('assembling', () => {
  it('a rig takes copies that name where they are from', () => {
    const rig = rigOf(
      'View 90 f/5.6',
      ['Flat board 42', 'Field camera 4×5 in'],
      'Sheet film 4×5 in',
    );
    expect(parseRig(rig).ok).toBe(true);
    expect(rig.chain[1]).toMatchObject({
      kind: 'view_camera',
      bellows_max_mm: 320,
      origin: { kit_revision: 1 },
    });
    expect(kitIdsIn(rig)).toHaveLength(4);
    expect(isWhole(newRig('x'))).toBe(false);
    const rigid = chainPartFrom(item('Rigid shift camera 71 to 27') as never);
    expect(rigid).toMatchObject({ kind: 'adapter', thickness_mm: 44 });
  });

  it('a rig of a later version is told as such, and nothing else of it', () => {
    const read = parseRig({ format: 'gangway.rig', version: 9, name: 'Odd' });
    expect(read.ok ? [] : read.problems).toEqual([
      {
        pointer: '/version',
        message: expect.stringContaining('9 was written by a newer Gangway'),
      },
    ]);
  });

  it('a station with any rig of the demo parses, whatever it was set to before', () => {
    const rigs = JSON.parse(
      readFileSync(new URL('../../../apps/server/demo-kit/rigs.json', import.meta.url), 'utf8'),
    ) as { lens: string; chain: string[]; back: string }[];
    for (const from of rigs) {
      for (const to of rigs) {
        const before = { ...rigStation(rigOf(from.lens, from.chain, from.back)) };
        const rig = rigOf(to.lens, to.chain, to.back);
        for (const focus of [{ distance_m: null }, { distance_m: 0.2 }, { magnification: 1 }]) {
          const after = withRig({ ...before, focus } as never, rig);
          expect(parseStation(after).ok).toBe(true);
        }
      }
    }
  });

  it('a filter stands ahead by its depth and the ring it needs; a smaller one is refused', () => {
    const lens = lensFrom(item('Medium 55 f/3.5') as never);
    const big = filterFrom(item('Filter 105') as Stored<KitItemOf<'filter'>>, lens);
    expect(big.ok && big.value).toMatchObject({ ahead_of_pupil_mm: 24 + 8 + 4 });
    expect(big.ok && big.value.name).toContain('step-up ring 77 to 105');
    const small = filterFrom(item('Filter 82, slim') as Stored<KitItemOf<'filter'>>, {
      ...lens,
      filter_thread_mm: 95,
    });
    expect(!small.ok && small.message).toContain('smaller');
  });

  it('is looked at f/8, or at the only stop it has', () => {
    expect(stopOf(plain())).toBe(8);
    expect(stopOf(plain({ iris: 'none' }))).toBe(2);
    expect(
      stopOf(rigOf('Wide 28 f/2, by wire', ['Plain adapter 20 to 18'], 'Small format back')),
    ).toBe(2);
  });
});

describe('cures', () => {
  const cured = (rig: WholeRig, code: string): { titles: string[]; all: boolean } => {
    const problem = problemsOf(rig).find((each) => each.code === code)!;
    const cures = curesFor(rig, problem, KIT);
    return {
      titles: cures.map(({ title }) => title),
      all: cures.every(({ after }) => !codes(after).includes(code) && parseRig(after).ok),
    };
  };

  it('a 72 mm lens a camera’s least draw forbids: the 20 mm recessed board, by itself', () => {
    const rig = rigOf(
      'View 72 f/5.6',
      ['Flat board 42', 'Rail camera 4×5 in'],
      'Sheet film 4×5 in',
    );
    expect(codes(rig)).toContain('bellows_too_long');
    const { titles, all } = cured(rig, 'bellows_too_long');
    expect(titles[0]).toBe('Put in “Recessed board 20” from the kit');
    expect(titles).toContain('Put in a 20 mm recessed board');
    expect(all).toBe(true);
  });

  it('an adapter of the thickness that keeps infinity, from the kit or plain', () => {
    const rig = plain({ mount: 'Bayonet 44/48' }, [], { mount: 'Bayonet 18/54', register_mm: 18 });
    const { titles, all } = cured(rig, 'mount_mismatch');
    expect(titles).toContain('Put in “Plain adapter 44 to 18” from the kit');
    expect(all).toBe(true);
    const thick = plain({}, [{ kind: 'adapter', thickness_mm: 29 }], { register_mm: 27 });
    expect(cured(thick, 'no_infinity').titles).toContain('Put in an adapter of 17.00 mm');
  });

  it('a step-up ring, another stop, a smaller plan', () => {
    const shift = rigOf('Shift 24 f/3.5', [], 'Small format back');
    const filter = { clear_diameter_mm: 76, ahead_of_pupil_mm: 40 };
    const ringed = { ...shift, lens: { ...shift.lens, filter } };
    expect(cured(ringed, 'ring_cuts').titles).toContain('Take the filter off');
    const narrow = {
      ...plain({
        circle: [
          { f_number: 2, diameter_mm: 40 },
          { f_number: 11, diameter_mm: 46 },
        ],
      }),
      aperture: 4,
    };
    expect(cured(narrow, 'circle_small').titles).toEqual(['Stop down to f/11']);
    const dumb = plain({ iris: 'electronic' }, [], { contacts: false });
    expect(cured({ ...dumb, aperture: 8 }, 'iris_stuck').titles).toEqual([]);
  });
});

describe('what has changed in the kit', () => {
  const lens = item('Shift 24 f/3.5') as Stored<KitItemOf<'lens'>>;
  const rig = rigOf('Shift 24 f/3.5', [], 'Small format back');
  const station = withRig(newStation('kept'), rig);
  const now =
    (document: Partial<KitItemOf<'lens'>>, revision = 2) =>
    (id: string) =>
      id === lens.id
        ? { ...lens, revision, document: { ...lens.document, ...document } }
        : undefined;

  it('is offered with what it would alter, and alters nothing by itself', () => {
    const { updates, after } = stationUpdate(station, now({ f_max: 16, mass_g: 800 }));
    expect(updates).toHaveLength(1);
    expect(updates[0]!.changes.map(({ name }) => name).sort()).toEqual(['f max', 'mass g']);
    expect(after.lens).toMatchObject({ f_max: 16, origin: { kit_revision: 2 } });
    expect(after.movement_limits).toEqual(station.movement_limits);
    expect(parsed(after).lens.f_max).toBe(16);
  });

  it('says nothing when the content is the same, the revision is, or the item is gone', () => {
    expect(stationUpdate(station, now({})).updates).toEqual([]);
    expect(stationUpdate(station, now({ f_max: 16 }, 1)).updates).toEqual([]);
    expect(stationUpdate(station, () => undefined).updates).toEqual([]);
  });

  it('brings new movements along, and keeps the filter on', () => {
    const filtered = {
      ...station,
      lens: { ...station.lens, filter: { clear_diameter_mm: 79, ahead_of_pupil_mm: 31 } },
    };
    const { after } = stationUpdate(
      filtered,
      now({ movement: { rise_mm: [-8, 8], moves: 'front' } }),
    );
    expect(after.movement_limits.rise_mm).toEqual([-8, 8]);
    expect(after.movement_limits.tilt_deg).toEqual([0, 0]);
    expect(after.lens.filter).toEqual(filtered.lens.filter);
  });
});

describe('the bench', () => {
  it('lays the parts end to end, the sensor at zero, the register as long as it is', () => {
    const rig = rigOf('Medium 55 f/3.5', ['Shift-and-tilt adapter 71 to 18'], 'Small format back');
    const bench = benchOf(rig);
    const [lens, adapter, back] = bench.blocks;
    expect(lens!.rearMm).toBe(adapter!.frontMm);
    expect(adapter!.frontMm - adapter!.rearMm).toBe(53);
    expect(adapter!.rearMm).toBe(back!.frontMm);
    expect(back!.frontMm).toBe(18);
    expect(bench.flangeMm).toBe(71);
    expect(bench.infinityMm).toBe(0);
    expect(bench.jointsMm).toEqual([71, 18]);
  });

  it('shows infinity before the sensor by what the chain is too long', () => {
    const bench = benchOf(plain({}, [{ kind: 'adapter', thickness_mm: 29 }], { register_mm: 18 }));
    expect(bench.infinityMm).toBeCloseTo(3, 12);
  });

  it('a converter’s own length moves nothing; bellows stand where infinity is', () => {
    const converter = rigOf('Normal 50 f/1.4', ['Converter 1.4'], 'Mirror body');
    expect(benchOf(converter).infinityMm).toBe(0);
    const view = benchOf(
      rigOf('View 90 f/5.6', ['Recessed board 20', 'Field camera 4×5 in'], 'Sheet film 4×5 in'),
    );
    expect(view.bellows).toMatchObject({ drawMm: 112, leastMm: 60, greatestMm: 320 });
    expect(view.infinityMm).toBeCloseTo(0, 12);
    expect(benchOf(newRig('empty')).blocks).toEqual([]);
  });
});
