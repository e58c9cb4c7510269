import fc from 'fast-check';
import {
  benchOf,
  curesFor,
  evaluate,
  figuresOf,
  itemFrom,
  kitText,
  newRig,
  parseKitItem,
  parseRig,
  parseStation,
  readKitText,
  rigProblems,
  rigStation,
  summaryOf,
  tableOf,
  textsOf,
  type ChainPart,
  type KitItem,
  type WholeRig,
} from '../src/index.js';
import { KIT } from './helpers/gear.js';
import { runs, seen as often } from '../../../scripts/lib/runs.mjs';

/** Figures as people write them: a few decimals, never a binary tail. */
const figure = (min: number, max: number, decimals = 1) =>
  fc
    .integer({ min: Math.ceil(min * 10 ** decimals), max: Math.floor(max * 10 ** decimals) })
    .map((n) => n / 10 ** decimals);

const maybe = <T>(arbitrary: fc.Arbitrary<T>) => fc.option(arbitrary, { nil: undefined });

const name = fc
  .string({ minLength: 1, maxLength: 30 })
  .map((text) => text.replace(/[\u0000-\u001f\u007f]/g, '').trim())
  .filter((text) => text !== '');

const mount = maybe(fc.constantFrom('Bayonet 18/54', 'Bayonet 44/48', 'Bayonet 71/60'));

/** Undefined fields are left out, as a file would. */
const tidy = <T extends object>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

const common = { mass_g: maybe(figure(10, 6000, 0)), modified: maybe(fc.boolean()) };

const range = figure(0.5, 60).map((end): [number, number] => [-end, end]);

const movement = fc
  .record({
    rise_mm: maybe(range),
    shift_mm: maybe(range),
    tilt_deg: maybe(figure(1, 30).map((end): [number, number] => [-end, end])),
    one_way_tilt: maybe(fc.boolean()),
    pivot_mm: maybe(figure(-40, 40)),
    moves: fc.constantFrom('front', 'rear'),
  })
  .filter((given) => Object.keys(tidy(given)).length > 1);

const lens = fc
  .record({
    name,
    focal_length_mm: figure(12, 400),
    f_min: fc.constantFrom(1.4, 2.8, 4, 5.6),
    f_max: fc.constantFrom(16, 22, 45),
    diameters: fc.array(figure(25, 500), { minLength: 1, maxLength: 4 }),
    register_mm: maybe(figure(5, 80, 2)),
    mount,
    iris: maybe(fc.constantFrom('mechanical', 'electronic', 'none')),
    focus_by: maybe(fc.constantFrom('helicoid', 'wire', 'bellows')),
    close: maybe(fc.record({ share: figure(0.75, 1.6, 2), magnification: figure(0.05, 3, 2) })),
    rear_protrusion_mm: maybe(figure(0, 20)),
    rear_diameter_mm: maybe(figure(20, 60)),
    balance_ahead_mm: maybe(figure(-20, 120)),
    filter_thread_mm: maybe(figure(40, 110, 0)),
    movement: maybe(movement),
    ...common,
  })
  .map(({ diameters, close, ...rest }) =>
    tidy({
      kind: 'lens',
      ...rest,
      circle: diameters.map((diameter_mm, i) => ({
        f_number: [1.4, 4, 11, 22][i],
        diameter_mm,
      })),
      close_focus: close && {
        distance_mm: Number(
          (
            close.share *
            rest.focal_length_mm *
            (2 + close.magnification + 1 / close.magnification)
          ).toFixed(1),
        ),
        magnification: close.magnification,
      },
    }),
  );

const back = fc
  .record({
    name,
    width_mm: figure(15, 250),
    aspect: figure(0.4, 1, 2),
    register_mm: maybe(figure(0, 60, 2)),
    mount,
    throat_mm: maybe(figure(20, 80)),
    clear_depth_mm: maybe(figure(0, 30)),
    contacts: maybe(fc.boolean()),
    ...common,
  })
  .map(({ aspect, ...rest }) =>
    tidy({ kind: 'back', ...rest, height_mm: Number((rest.width_mm * aspect).toFixed(2)) }),
  );

const faces = {
  front_mount: mount,
  rear_mount: mount,
  throat_mm: maybe(figure(20, 80)),
  contacts: maybe(fc.boolean()),
  ...common,
};

const adapter = fc
  .record({
    name,
    thickness_mm: figure(0, 60),
    least_thickness_mm: maybe(figure(0, 60)),
    extends_mm: maybe(figure(0, 20)),
    movement: maybe(movement),
    ...faces,
  })
  .map((rest) => tidy({ kind: 'adapter', ...rest }));

const multiplier = fc
  .record({
    name,
    factor: fc.constantFrom(0.5, 0.71, 1.4, 2),
    circle_limit_mm: maybe(figure(10, 90)),
    length_mm: maybe(figure(5, 50)),
    clear_depth_mm: maybe(figure(0, 20)),
    ...faces,
  })
  .map((rest) => tidy({ kind: 'multiplier', ...rest }));

const board = fc
  .record({ name, offset_mm: figure(-40, 60), ...faces })
  .map((rest) => tidy({ kind: 'board', ...rest }));

const bellows = fc
  .record({ least: figure(20, 150, 0), more: figure(10, 600, 0), movement: maybe(movement) })
  .map(({ least, more, movement: moved }) =>
    tidy({
      kind: 'view_camera' as const,
      bellows_min_mm: least,
      bellows_max_mm: least + more,
      movement: moved,
    }),
  );

const item = fc.oneof(lens, back, adapter, multiplier, board);

function sound(document: unknown): KitItem {
  const read = parseKitItem(document);
  if (!read.ok) throw new Error(JSON.stringify([document, read.problems]));
  return read.value;
}

/** Any parts in any order: most of them do not go together, and that must be said. */
const rig: fc.Arbitrary<WholeRig> = fc
  .record({
    lens,
    parts: fc.array(fc.oneof(adapter, multiplier, board), { maxLength: 4 }),
    camera: maybe(bellows),
    back,
    aperture: maybe(fc.constantFrom(5.6, 8, 16)),
  })
  .map((made) => {
    const { kind: _l, ...lensPart } = made.lens;
    const { kind: _b, ...backPart } = made.back;
    const read = parseRig(
      tidy({
        ...newRig('random'),
        lens: lensPart,
        chain: [...made.parts, ...(made.camera ? [made.camera] : [])] as ChainPart[],
        back: { ...backPart, orientation: 'landscape' },
        aperture: made.aperture,
      }),
    );
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    return read.value as WholeRig;
  });

describe('any item', () => {
  it('is the same after being written by hand and read again', () => {
    fc.assert(
      fc.property(item, (document) => {
        const before = sound(document);
        const { item: after, messages } = itemFrom(before.kind, textsOf(before));
        expect(messages).toEqual({});
        expect(after.ok && after.value).toEqual(before);
      }),
      { numRuns: runs(400) },
    );
  });

  it('is the same after a kit file, and fits the headings of its table', () => {
    fc.assert(
      fc.property(fc.array(item, { maxLength: 6 }), (documents) => {
        const items = documents.map(sound);
        const read = readKitText(kitText(items));
        expect(read.ok && read.value.map((each) => each.ok && each.value)).toEqual(items);
        const { heading, lines } = tableOf('lens', items);
        expect(lines).toHaveLength(items.filter(({ kind }) => kind === 'lens').length);
        for (const line of lines) expect(line).toHaveLength(heading.length);
        for (const each of items) expect(summaryOf(each)).not.toMatch(/NaN|undefined|Infinity/);
      }),
    );
  });
});

describe('any rig', () => {
  it('gives a station that parses and a report that JSON can say', () => {
    fc.assert(
      fc.property(rig, (made) => {
        const station = rigStation(made);
        const read = parseStation(station);
        expect(read.ok ? [] : read.problems).toEqual([]);
        const report = evaluate(station);
        expect(JSON.parse(JSON.stringify(report))).toEqual(report);
        for (const { message, cure } of report.rig.problems) {
          expect(`${message} ${cure}`).not.toMatch(/NaN|undefined|Infinity (mm|m|°|×|kg)|−0\.0 /);
          expect(message).toMatch(/\.$/);
          expect(cure).toMatch(/\.$/);
        }
        // What is not reached cannot be focused at infinity, and the other way round.
        if (report.rig.reaches_infinity) expect(report.rig.farthest_focus_m).toBeNull();
      }),
      { numRuns: runs(400) },
    );
  });

  it('can be drawn and compared: every place and figure is finite or said to be unknown', () => {
    fc.assert(
      fc.property(rig, (made) => {
        const bench = benchOf(made);
        for (const block of bench.blocks) {
          expect(Number.isFinite(block.frontMm) && Number.isFinite(block.rearMm)).toBe(true);
          expect(block.frontMm).toBeGreaterThanOrEqual(block.rearMm - 1e-9);
        }
        expect(bench.jointsMm).toHaveLength(made.chain.length + 1);
        const { riseMm: _r, shiftMm: _s, ...figures } = figuresOf(made);
        for (const value of Object.values(figures)) {
          if (typeof value === 'number') expect(Number.isFinite(value)).toBe(true);
        }
      }),
      { numRuns: runs(300) },
    );
  });

  it('is offered no cure that does not cure, nor one that breaks something else', () => {
    const stops = (of: WholeRig): number =>
      rigProblems(rigStation(of)).filter(({ severity }) => severity === 'stop').length;
    let offered = 0;
    fc.assert(
      fc.property(rig, (made) => {
        for (const problem of rigProblems(rigStation(made))) {
          for (const { after } of curesFor(made, problem, KIT)) {
            offered += 1;
            expect(parseRig(after).ok).toBe(true);
            const left = rigProblems(rigStation(after));
            expect(
              left.some(({ code, joint }) => code === problem.code && joint === problem.joint),
            ).toBe(false);
            expect(stops(after)).toBeLessThanOrEqual(stops(made));
          }
        }
      }),
      { numRuns: runs(150) },
    );
    expect(offered).toBeGreaterThan(often(20));
  });
});
