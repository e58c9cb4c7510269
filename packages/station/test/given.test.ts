import {
  assumedFor,
  assumptionsOf,
  blanksOf,
  circleFor,
  editedStation,
  evaluate,
  FORMATS,
  limitsTable,
  movesOf,
  orderLines,
  newStation,
  rigStation,
  rigVerdict,
  why,
  variantsOf,
  withJobCriterion,
  withNewVariant,
  withRig,
  withVariant,
  type Station,
} from '../src/index.js';
import { plain, rigOf } from './helpers/gear.js';
import { base, parsed } from './helpers/rigs.js';

const pointers = (station: Station): string[] =>
  evaluate(station).assumed.map(({ pointer }) => pointer);

/** A lens of 210 mm on 4×5 in whose maker tells its circle at f/22 only. */
const plate210 = (aperture: number): Station => {
  const station = base();
  return parsed({
    ...station,
    back: { width_mm: 120, height_mm: 95, orientation: 'landscape', medium: 'film' },
    lens: {
      focal_length_mm: 210,
      f_min: 5.6,
      f_max: 64,
      circle: [{ f_number: 22, diameter_mm: 210 }],
      focus_by: 'bellows',
    },
    chain: [{ kind: 'view_camera', bellows_min_mm: 60, bellows_max_mm: 400 }],
    aperture,
    focus: { distance_m: null },
  });
};

describe('what nobody gave', () => {
  it('a circle told at f/22 alone is assumed at f/8, and given at f/22 as it is engraved', () => {
    const wide = evaluate(plate210(8)).assumed.find(({ pointer }) => pointer === '/lens/circle');
    expect(wide).toMatchObject({ value: 210 });
    expect(wide!.why).toContain('given from f/22 only');
    expect(wide!.why).toContain('Wider open it is as a rule smaller');
    expect(pointers(plate210(22))).not.toContain('/lens/circle');
    expect(pointers(plate210(22.63))).not.toContain('/lens/circle');
    expect(pointers(plate210(45))).toContain('/lens/circle');
  });

  it('the limits say at which stops the circle is only taken to go on', () => {
    const rows = limitsTable(plate210(8)).rows;
    expect(rows.filter(({ given }) => given).map(({ fNumber }) => fNumber)).toEqual([22]);
  });

  it('the sharp core, a level and registers left blank are told, and told once given', () => {
    const blank = base();
    expect(pointers(blank)).toEqual([
      '/lens/sharp_fraction',
      '/criterion',
      '/lens/register_mm',
      '/back/register_mm',
      '/camera/level_offset_deg',
    ]);
    const told = parsed({
      ...blank,
      lens: { ...blank.lens, sharp_fraction: 0.8, register_mm: 18 },
      back: { ...blank.back, register_mm: 18 },
      camera: { ...blank.camera, level_offset_deg: 0 },
      criterion_by: 'chosen',
    });
    expect(pointers(told)).toEqual([]);
  });

  it('pupils alike are assumed where it would show: leaned, or close up', () => {
    const straight = base();
    expect(pointers(straight)).not.toContain('/lens/pupil_ratio');
    const leaned = { ...straight, movements: { ...straight.movements, tilt_deg: 3 } };
    expect(pointers(leaned)).toContain('/lens/pupil_ratio');
    expect(pointers({ ...straight, focus: { magnification: 0.5 } })).toContain('/lens/pupil_ratio');
    const given = { ...leaned, lens: { ...leaned.lens, pupil_ratio: 1.8 } };
    expect(pointers(given)).not.toContain('/lens/pupil_ratio');
  });

  it('reasons rest on it', () => {
    const all = assumptionsOf(plate210(8));
    expect(assumedFor(all, why('margin', plate210(8)).rests).map(({ pointer }) => pointer)).toEqual(
      ['/lens/circle'],
    );
    expect(assumedFor(all, ['level']).map(({ pointer }) => pointer)).toEqual([
      '/camera/level_offset_deg',
    ]);
  });
});

describe('a rig with blanks', () => {
  it('works with nothing left open, may work with a blank, does not where something forbids it', () => {
    const whole = rigOf('Shift 24 f/3.5', [], 'Small format back');
    expect(evaluate(rigStation(whole)).rig).toMatchObject({ works: 'yes', unknown: [] });
    expect(rigVerdict(rigStation(whole)).words).toMatch(/^works/);

    const { register_mm: _, ...lens } = whole.lens;
    const may = rigStation({ ...whole, lens });
    expect(evaluate(may).rig).toMatchObject({ works: 'may', unknown: ['/lens/register_mm'] });
    expect(rigVerdict(may)).toMatchObject({ standing: 'costs', words: 'may work, 1 not known' });
    expect(rigVerdict(may).sentence).toBe(
      'May work: 1 thing is not known. Register of “Shift 24 f/3.5” decides whether infinity is reached.',
    );

    const no = rigStation({ ...whole, lens: { ...lens, mount: 'Bayonet 44/48' } });
    expect(evaluate(no).rig).toMatchObject({ works: 'no', unknown: ['/lens/register_mm'] });
  });

  it('an iris set by the body through an adapter with blank contacts is not fine', () => {
    const adapter = { kind: 'adapter' as const, thickness_mm: 0, throat_mm: 50 };
    const rig = plain({ iris: 'electronic' }, [adapter], { contacts: true });
    const { rig: report, assumed } = evaluate(rigStation(rig));
    expect(report.unknown).toContain('/chain/0/contacts');
    expect(report.problems.map(({ code }) => code)).toContain('iris_stuck');
    expect(assumed.map(({ pointer }) => pointer)).toContain('/chain/0/contacts');
  });

  it('names what each blank decides', () => {
    const blanks = blanksOf(rigStation(plain({ rear_diameter_mm: 38, rear_protrusion_mm: 4 })));
    expect(blanks.map(({ pointer }) => pointer)).toEqual([
      '/lens/mount',
      '/back/mount',
      '/back/throat_mm',
      '/back/clear_depth_mm',
    ]);
    expect(blanks.every(({ decides }) => decides.startsWith('whether '))).toBe(true);
  });
});

describe('the standard of sharpness', () => {
  const digital = { ...base().back, width_px: 8256, height_px: 5504 };

  it('is 3 pixels where pixels are known, and by the diagonal on film', () => {
    const begun = newStation('begun');
    expect(begun).toMatchObject({ criterion: { diagonal_divisor: 1500 }, criterion_by: 'default' });
    const on = (back: Station['back']): Station =>
      withRig(begun, { lens: begun.lens, chain: [], back });
    expect(on(digital).criterion).toEqual({ pixels: 3 });
    expect(evaluate(on(digital)).optics.coc_mm).toBeCloseTo((3 * 36) / 8256, 12);
    expect(on({ ...digital, medium: 'film' }).criterion).toEqual({ diagonal_divisor: 1500 });
  });

  it('goes with the back until somebody chooses one', () => {
    const begun = newStation('begun');
    const edit = (after: Station, before: Station): Station => {
      const read = editedStation(after, before);
      if (!read.ok) throw new Error('refused');
      return read.value;
    };
    const pixels = edit({ ...begun, back: digital }, begun);
    expect(pixels).toMatchObject({ criterion: { pixels: 3 }, criterion_by: 'default' });
    const chosen = edit({ ...pixels, criterion: { pixels: 2 } }, pixels);
    expect(chosen.criterion_by).toBe('chosen');
    const film = edit({ ...chosen, back: { ...digital, medium: 'film' } }, chosen);
    expect(film.criterion).toEqual({ pixels: 2 });
    // Without pixels there is nothing to hold it to: the usual, and said to be that.
    const bare = edit({ ...chosen, back: base().back }, chosen);
    expect(bare).toMatchObject({ criterion: { diagonal_divisor: 1500 }, criterion_by: 'default' });
  });

  it('that comes with a rig or a variant is not taken for a choice', () => {
    const begun = newStation('begun');
    const edited = (after: Station, before: Station): Station => {
      const read = editedStation(after, before);
      if (!read.ok) throw new Error('refused');
      return read.value;
    };
    const rigged = edited(withRig(begun, { lens: begun.lens, chain: [], back: digital }), begun);
    expect(rigged).toMatchObject({ criterion: { pixels: 3 }, criterion_by: 'default' });
    const second = edited(withNewVariant(rigged, 'Film'), rigged);
    const film = edited({ ...second, back: { ...digital, medium: 'film' } }, second);
    const back = edited(withVariant(structuredClone(film), variantsOf(film)[1]!.name), film);
    expect(back).toMatchObject({ criterion: { pixels: 3 }, criterion_by: 'default' });
  });

  it('of a job is chosen; one that cannot be read on this back is not passed over in silence', () => {
    const begun = newStation('begun');
    expect(withJobCriterion(begun, { coc_mm: 0.02 })).toMatchObject({
      criterion: { coc_mm: 0.02 },
      criterion_by: 'chosen',
    });
    for (const stored of [{ pixels: 2 }, null, { nonsense: 1 }]) {
      expect(withJobCriterion(begun, stored).criterion_by).toBe('default');
    }
  });

  it('of an old file counts as chosen', () => {
    const { criterion_by: _, ...old } = newStation('old');
    expect(pointers(parsed(old))).not.toContain('/criterion');
  });
});

describe('a circle made for a format', () => {
  it('covers that format, however its diagonal is rounded', () => {
    for (const format of FORMATS) {
      expect(circleFor(format)).toBeGreaterThanOrEqual(
        Math.hypot(format.width_mm, format.height_mm),
      );
      expect(circleFor(format)).toBeLessThan(Math.hypot(format.width_mm, format.height_mm) + 0.1);
    }
  });
});

describe('front and back', () => {
  it('are told as the hand moves them: the picture looks higher as the back goes down', () => {
    const back = parsed({
      ...base(),
      movement_limits: { moves: 'rear' },
      movements: { rise_mm: 6, shift_mm: -2, tilt_deg: 0, swing_deg: 0 },
    });
    expect(orderLines(movesOf(back))).toEqual([
      'Lower the back 6.0 mm.',
      'Shift the back right 2.0 mm.',
    ]);
    const both = parsed({
      ...base(),
      chain: [{ kind: 'view_camera', bellows_min_mm: 20, bellows_max_mm: 200 }],
      movement_limits: { moves: 'front', rear_rise_mm: [-20, 20] },
      movements: { rise_mm: 6, shift_mm: 0, tilt_deg: 0, swing_deg: 0, rear_rise_mm: -3 },
    });
    expect(orderLines(movesOf(both))).toEqual([
      'Raise the front standard 6.0 mm.',
      'Raise the back 3.0 mm.',
    ]);
  });
});
