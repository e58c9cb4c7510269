import fc from 'fast-check';
import {
  coverVerdict,
  evaluate,
  framingWays,
  stateOf,
  waysOut,
  type Station,
} from '../src/index.js';
import { base, parsed } from './helpers/rigs.js';
import { WAYS_HOLD } from './helpers/ways-hold.js';
import { runs } from '../../../scripts/lib/runs.mjs';

// Two thousand of each run in `scripts/ways.mjs`, which is a check of its own.
describe('taken literally over drawn stations', () => {
  it.each(Object.entries(WAYS_HOLD))(
    '%s cure what they are offered for, name every change, can be set by hand and lead in no circle',
    (_, holds) => fc.assert(holds, { numRuns: runs(50), maxSkipsPerRun: 1000 }),
  );
});

/** 24 mm whose circle is 60 wide open and 67 from f/8, with 12 mm of shift. */
const front = (more: Partial<Station> = {}): Station =>
  parsed({
    ...base(),
    lens: {
      focal_length_mm: 24,
      f_min: 3.5,
      f_max: 22,
      circle: [
        { f_number: 3.5, diameter_mm: 60 },
        { f_number: 8, diameter_mm: 67 },
      ],
    },
    aperture: 8,
    focus: { distance_m: null },
    facade: { distance_m: 18, top_m: 19, width_m: 14, base_m: 0 },
    ...more,
  });

describe('a façade 19 m high and 14 m wide from 18 m', () => {
  it('asks for its rise rounded up, never to what does not serve', () => {
    const upright = front({ back: { ...base().back, orientation: 'portrait' } });
    // By hand: 24 (19 − 1.6) / 17.976 − 18 = 5.23 mm.
    const { rise_needed_mm } = evaluate(upright).facade!;
    expect(rise_needed_mm).toBeCloseTo((24 * 17.4) / 17.976 - 18, 1);
    const verdict = coverVerdict(upright, evaluate(upright));
    expect(verdict.figure).toBe(`${(Math.ceil(rise_needed_mm! * 10) / 10).toFixed(1)} mm`);
    const set = {
      ...upright,
      movements: { ...upright.movements, rise_mm: Number.parseFloat(verdict.figure) },
    };
    expect(evaluate(set).facade!.framed).toBe(true);
  });

  it('half a millimetre short is cured by that half millimetre, not by nine remedies', () => {
    const upright = front({ back: { ...base().back, orientation: 'portrait' } });
    const needed = evaluate(upright).facade!.rise_needed_mm!;
    const short = {
      ...upright,
      movements: { ...upright.movements, rise_mm: Math.floor((needed - 0.5) * 10) / 10 },
    };
    const ways = framingWays(short);
    expect(ways[0]!.id).toBe('frame-move');
    expect(ways.length).toBeLessThanOrEqual(2);
    expect(stateOf(ways[0]!.after)).toBe('sharp');
  });

  it('wide open, a corner half a millimetre out is eased by that much', () => {
    const level = front({ aperture: 3.5, facade: undefined as never });
    const { facade: _, ...bare } = level;
    const limit = evaluate(bare as Station).coverage.limits.rise_mm!;
    const out = {
      ...bare,
      movements: { ...base().movements, rise_mm: Number((limit + 0.5).toFixed(2)) },
    } as Station;
    const ways = waysOut(out);
    expect(ways.length).toBeLessThanOrEqual(4);
    const ease = ways.find(({ id }) => id === 'ease-rise')!;
    expect(out.movements.rise_mm - ease.after.movements.rise_mm).toBeLessThan(0.65);
  });
});
