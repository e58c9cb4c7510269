import fc from 'fast-check';
import {
  cardOf,
  carried,
  exposureReport,
  reportMosaic,
  shortForm,
  timesSaid,
  type CardStep,
  type Station,
} from '../src/index.js';
import { turningOf } from '../src/optical/turning.js';
import { readingsOf } from '../src/orders/focusing.js';
import { missedMm } from '../src/optical/missed.js';
import { setupOf } from '../src/optical/setup.js';
import { everything } from './helpers/worlds.js';
import { runs } from '../../../scripts/lib/runs.mjs';

/** Wherever a card is written, whoever carries it out stands where the plan does. */

describe('a card carried out', () => {
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
        const [plan, print] = [planned, set].map((each) => readingsOf(setupOf(each))[0]!);
        if (plan!.kind !== 'ring' || print!.kind !== 'ring' || plan!.distanceM === null) return;
        // A ring is read to 0.3 %; a hair outward where the figure would be too near to focus at all.
        const near = missedMm(setupOf(planned)) === 0 ? 0.0031 : 0.2;
        expect(off(print!.distanceM ?? 1e9, plan!.distanceM) / plan!.distanceM).toBeLessThan(
          plan!.distanceM < 0.2 ? 0.1 : near + 0.01,
        );
      }),
      { numRuns: runs(150) },
    );
  });

  it('sets the frames of a mosaic where the report has them, a tenth of a millimetre near', () => {
    let frames = 0;
    fc.assert(
      fc.property(everything, (planned) => {
        const { mosaic } = planned;
        fc.pre(mosaic !== undefined && (mosaic.pattern === 'grid' || mosaic.pattern === 'free'));
        const card = cardOf(planned);
        const steps = card.steps.filter(({ frame }) => frame !== undefined);
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
