import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { relative } from 'node:path';
import { at, ROOT } from './paths.mjs';

const Sequencer = createRequire(at('package.json'))('@jest/test-sequencer').default;

/** What took longest the last time; of a fresh clone, what is known to be heavy. */
const HEAVY = [
  /frames\/test\/(series|prove|zero|prove-random)/,
  /http\/(malformed|backup)/,
  /\/(log|documents|log-kills)\.test/,
  /paper\/test\/card/,
  /mutations|traced|solutions|match\.property/,
];

function lastTimes() {
  try {
    return JSON.parse(readFileSync(at('.data/test-times.json'), 'utf8')).files;
  } catch {
    return {};
  }
}

/** Longest first: the last file to end then keeps one worker waiting as little as can be. */
export default class LongestFirst extends Sequencer {
  sort(tests) {
    const times = lastTimes();
    const rank = ({ path }) => {
      const name = relative(ROOT, path);
      const heavy = HEAVY.findIndex((each) => each.test(name));
      return times[name] ?? (heavy < 0 ? 0 : 20 * (HEAVY.length - heavy));
    };
    return [...tests].sort((a, b) => rank(b) - rank(a));
  }
}
