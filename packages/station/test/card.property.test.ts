import fc from 'fast-check';
import {
  cardOf,
  cardText,
  carried,
  evaluate,
  exposureReport,
  parseStation,
  reportMosaic,
  shortForm,
  timesSaid,
  type CardStep,
  type Station,
} from '../src/index.js';
import { turningOf } from '../src/optical/turning.js';
import { carriedOut, turnedRead } from './helpers/read-card.js';
import { everything, worlds } from './helpers/worlds.js';
import { runs, seen as often } from '../../../scripts/lib/runs.mjs';

/** Wherever a card is written, whoever carries it out stands where the plan does. */

/** Worlds leaned by amounts that are seen: drawn at large, most are a hair. */
const leaned = fc
  .record({
    world: worlds,
    tilt: fc.integer({ min: -400, max: 400 }),
    swing: fc.integer({ min: -400, max: 400 }),
    rise: fc.integer({ min: -900, max: 900 }),
  })
  .map(({ world, tilt, swing, rise }) => ({
    ...world,
    movements: {
      ...world.movements,
      tilt_deg: tilt / 70,
      swing_deg: swing / 70,
      rise_mm: rise / 70,
    },
  }))
  .filter((station) => parseStation(station).ok);

const wholeMovements = (movements: Station['movements']) =>
  Object.fromEntries(Object.entries(movements).map(([name, value]) => [name, (value ?? 0) + 0]));

describe('a card carried out', () => {
  it('gives the station’s own report, to what the card prints', () => {
    let leans = 0;
    fc.assert(
      fc.property(fc.oneof(leaned, worlds, everything), (planned) => {
        // What turns is told in one sentence; its figures are read from the text below.
        fc.pre(turningOf(planned) === null && !planned.mosaic);
        const card = cardOf(planned);
        const done = carriedOut(card, planned);
        const wanted = carried(planned);
        expect(parseStation(done)).toMatchObject({ ok: true });
        expect(wholeMovements(done.movements)).toEqual(wholeMovements(wanted.movements));
        expect(done.focus).toEqual(wanted.focus);
        expect(done.aperture).toBeCloseTo(wanted.aperture, 9);
        expect(done.camera).toEqual(wanted.camera);
        expect(done.back).toEqual(wanted.back);
        const same = { ...done, aperture: wanted.aperture };
        expect(evaluate({ ...same, movements: wanted.movements })).toEqual(evaluate(wanted));
        if (Math.abs(planned.movements.tilt_deg) >= 0.05) leans += 1;
      }),
      { numRuns: runs(80) },
    );
    expect(leans).toBeGreaterThan(8);
  });

  it('prints nothing further from the plan than half its own step', () => {
    fc.assert(
      fc.property(everything, (planned) => {
        const set = carried(planned);
        const off = (a: number, b: number): number => Math.abs(a - b);
        if (turningOf(planned) === null) {
          for (const [name, value] of Object.entries(planned.movements)) {
            const there = set.movements[name as keyof Station['movements']] ?? 0;
            expect(off(there, value)).toBeLessThanOrEqual(0.05 + 1e-9);
          }
        }
        expect(off(set.camera.pitch_deg, planned.camera.pitch_deg)).toBeLessThanOrEqual(
          0.05 + 1e-9,
        );
        expect(Math.abs(Math.log2(set.aperture / planned.aperture))).toBeLessThan(0.1);
        const { distance_m: m } = planned.focus;
        if (typeof m === 'number') {
          // A hair outward where the printed figure would be too near to focus at all.
          expect(off(set.focus.distance_m!, m) / m).toBeLessThan(m < 0.2 ? 0.1 : 0.02);
        }
      }),
      { numRuns: runs(150) },
    );
  });

  it('tells what turns by its angle, its shift and its lean', () => {
    let turned = 0;
    fc.assert(
      fc.property(everything, (planned) => {
        fc.pre(turningOf(planned) !== null);
        const line = cardText(planned)
          .split('\n')
          .find((each) => each.startsWith('turned to') && each.includes('shift'));
        if (!line) return;
        turned += 1;
        const wanted = carried(planned).movements;
        const done = turnedRead(line, planned);
        for (const [name, value] of Object.entries(done)) {
          expect([name, value]).toEqual([
            name,
            expect.closeTo(wanted[name as keyof Station['movements']] ?? 0, 2),
          ]);
        }
      }),
      { numRuns: runs(400) },
    );
    expect(turned).toBeGreaterThan(often(10));
  });

  it('sets the frames of a mosaic where the report has them, a tenth of a millimetre near', () => {
    let frames = 0;
    fc.assert(
      fc.property(everything, (planned) => {
        const { mosaic } = planned;
        fc.pre(mosaic !== undefined && (mosaic.pattern === 'grid' || mosaic.pattern === 'free'));
        const card = cardOf(planned);
        const steps = card.steps.filter(({ part }) => part === 'frames');
        if (steps.some(({ says }) => /Turn|Slide|Bring/.test(says))) return;
        const { frames: laid } = reportMosaic(card.station, mosaic!);
        const at = { rise: Number.NaN, shift: Number.NaN };
        for (const step of steps) {
          for (const [way, value] of told(step)) at[way] = value;
          const { rise_mm, shift_mm } = laid[step.frame!]!;
          if (!Number.isNaN(at.rise)) expect(Math.abs(at.rise - rise_mm)).toBeLessThan(0.0501);
          if (!Number.isNaN(at.shift)) expect(Math.abs(at.shift - shift_mm)).toBeLessThan(0.0501);
          frames += 1;
        }
      }),
      { numRuns: runs(150) },
    );
    expect(frames).toBeGreaterThan(30);
  });

  it('exposes as the report has it, and says nothing that is no sentence', () => {
    fc.assert(
      fc.property(
        everything,
        fc.constantFrom('metric' as const, 'feet' as const),
        (planned, units) => {
          const card = cardOf(planned, units);
          const { exposure } = planned;
          const time = exposure ? timesSaid(planned, exposureReport(planned, exposure)) : '';
          expect(card.steps.find(({ id }) => id === 'time')?.figure ?? '').toBe(
            exposure?.flash ? '' : time,
          );
          const all = [
            ...card.steps.flatMap(({ says, figure = '', detail = '' }) => [says, figure, detail]),
            ...card.unsettled.stops,
            ...card.unsettled.warnings,
            ...shortForm(planned, units),
          ];
          for (const each of all)
            expect(each).not.toMatch(/NaN|undefined|Infinity (mm|m|°|×)|−0\.0 /);
          const ids = card.steps.map(({ id }) => id);
          expect(new Set(ids).size).toBe(ids.length);
        },
      ),
      { numRuns: runs(120) },
    );
  });
});

/** What a frame’s line moves, by the picture: a back goes the other way. */
function told({ says, figure }: CardStep): [way: 'rise' | 'shift', value: number][] {
  const text = figure === undefined ? says : `${says} ${figure}`;
  const found: [way: 'rise' | 'shift', value: number][] = [];
  const moves =
    /(Raise|Lower|Shift) (the back|the lens|the front standard)(?: (right|left))?(?: \(\d+ clicks?\))? ([\d.]+) mm(?: (right|left))?/g;
  for (const [, verb, what, before, size, after] of text.matchAll(moves)) {
    const back = what === 'the back';
    const way = before ?? after;
    const plus = verb === 'Raise' || way === 'right';
    found.push([verb === 'Shift' ? 'shift' : 'rise', (plus !== back ? 1 : -1) * Number(size)]);
  }
  if (/Shift [a-z ]+ to 0/.test(text)) found.push(['shift', 0]);
  if (/Set the rise of [a-z ]+ to 0/.test(text)) found.push(['rise', 0]);
  return found;
}
