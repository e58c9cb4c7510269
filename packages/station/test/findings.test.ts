import fc from 'fast-check';
import { runs } from '../../../scripts/lib/runs.mjs';
import { assumedWhy, assumptionsOf, rigProblems, rigProblemSaid } from '../src/index.js';
import { ASSUMED_SAYS } from '../src/words/assumptions.js';
import { RIG_SAYS } from '../src/words/rig-problems.js';
import { everything } from './helpers/worlds.js';

/** Sentences are made of values that may be sent to a worker and back: plain data. */
describe('what is found', () => {
  it('is data: sent on, it says the same', () => {
    const codes = new Set<string>();
    fc.assert(
      fc.property(everything, (station) => {
        for (const problem of rigProblems(station)) {
          codes.add(problem.code);
          const came = structuredClone(problem);
          expect(rigProblemSaid(came)).toEqual(rigProblemSaid(problem));
          expect(problem.code in RIG_SAYS).toBe(true);
          expect(rigProblemSaid(problem).message).toMatch(/^[“A-Z].*\.$/);
        }
        for (const assumption of assumptionsOf(station)) {
          codes.add(assumption.code);
          const came = structuredClone(assumption);
          expect(assumedWhy(came)).toBe(assumedWhy(assumption));
          expect(assumption.code in ASSUMED_SAYS).toBe(true);
          expect(assumedWhy(assumption)).not.toMatch(/undefined|NaN|\[object/);
        }
      }),
      { numRuns: runs(300) },
    );
    // Worth something only while many kinds turn up.
    expect(codes.size).toBeGreaterThan(12);
  });
});
