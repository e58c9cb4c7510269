/** Few runs tell little: a suite is not thinned below so many. */
const LEAST = 40;

/** Whether random suites go on at length: `npm run trial` does, the usual run does not. */
export const atLength = process.env.TRIAL === 'all';

/**
 * How many random cases a suite draws: a fifth of its own number in the usual run, all of them in a trial.
 * @param {number} all
 * @returns {number}
 */
export const runs = (all) => (atLength ? all : Math.max(Math.min(all, LEAST), Math.round(all / 5)));

/**
 * How often a thing has to turn up among the cases drawn, for a suite to be worth something.
 * @param {number} all among all of them
 * @returns {number}
 */
export const seen = (all) => (atLength ? all : Math.max(1, Math.round(all / 6)));
