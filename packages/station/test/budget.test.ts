import { newBudget, SEARCH_STEPS } from '@gangway/optics';
import { evaluate, instructionsFor, solveStation, type Station } from '../src/index.js';
import { randomOf } from './helpers/mutations.js';
import { base, parsed } from './helpers/rigs.js';

/** Five hundred marks, all over the world and under the lens. */
function absurd(soft: number): Station {
  const random = randomOf(41);
  const place = (): number => Math.sign(random() - 0.5) * 10 ** (random() * 9 - 3);
  const height = (): number => Math.max(-1e5, Math.min(1e5, place()));
  return parsed({
    ...base(),
    solve: { tilt: true, swing: true },
    marks: Array.from({ length: 500 }, (_, i) => ({
      label: `Mark ${i}`,
      x_m: place(),
      y_m: height(),
      z_m: Math.abs(place()),
      must: i < soft ? 'soft' : 'sharp',
    })),
  });
}

describe('searches have a budget', () => {
  it.each([0, 1, 5, 250])('500 marks at absurd places, %i of them soft: it ends there', (soft) => {
    const budget = newBudget();
    const { solution } = evaluate(absurd(soft), budget);
    // One look at every mark may have been begun when the last step was taken.
    expect(budget.left).toBeGreaterThan(-SEARCH_STEPS / 10);
    expect(solution!.stopped === true).toBe(budget.left <= 0);
    if (solution!.stopped && solution!.reason) expect(solution!.reason).toMatch(/stopped early/);
  });

  it('says when it stopped looking, in the report and where it is told what to set', () => {
    const marks = [1, 2, 3, 4].map((z, i) => ({
      label: `Mark ${z}`,
      x_m: 0.1 * i,
      y_m: 1.5 + 0.02 * (i % 2),
      z_m: z,
      must: 'sharp' as const,
    }));
    const station = parsed({ ...base(), solve: { tilt: true, swing: true }, marks });
    expect(evaluate(station).solution).not.toHaveProperty('stopped');
    expect(instructionsFor(solveStation(station)!, 'metric').notes.join()).not.toMatch(/stopped/);
    const short = solveStation(station, { budget: newBudget(1) })!;
    expect(short.stopped).toBe(true);
    const { solution } = evaluate(station, newBudget(1));
    expect(solution!.stopped).toBe(true);
    const told = [solution!.reason ?? '', ...instructionsFor(short, 'metric').notes].join(' ');
    expect(told).toMatch(/stopped early/);
  });

  it('a long list of marks is counted, not read out', () => {
    const { solution } = evaluate({
      ...absurd(0),
      marks: absurd(0).marks!.map((mark) => ({ ...mark, z_m: -1 - Math.abs(mark.z_m) })),
    });
    expect(solution!.reason).toMatch(/and 494 more lie behind the camera/);
    expect(solution!.reason!.length).toBeLessThan(300);
  });
});
