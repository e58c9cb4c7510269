import { pairLog, type Clock, type Laid } from './match-likelihood.js';

/**
 * Files laid against lines in their order at one clock: the forward and backward passes of a pair
 * hidden Markov model (Durbin, Eddy, Krogh, Mitchison: Biological Sequence Analysis, 1998, ch. 4).
 */

/** File, line, how likely. */
export type LikelyPair = readonly [file: number, line: number, likely: number];

/** Two neighbours that changed places: common practice, no source. */
const SWAPPED = 0.0003;
/** A line farther off than this is no file’s, s. */
const REACH_S = 400;
/** Without any times only a lattice this large is gone through. */
const MOST_CELLS = 6_000_000;

/** What is this much less likely adds nothing that counts, nats. */
const NOTHING = 34;

function logAdd(a: number, b: number): number {
  const [most, least] = a > b ? [a, b] : [b, a];
  return least < most - NOTHING || least === -Infinity
    ? most
    : most + Math.log1p(Math.exp(least - most));
}

/** Which cells of the lattice are looked at: for i files done, the numbers of lines done. */
export interface Band {
  readonly low: Int32Array;
  readonly high: Int32Array;
  readonly start: Int32Array;
  readonly cells: number;
}

export function bandOf(laid: Laid, clock: Clock): Band | null {
  const { fileS, lineS, timed } = laid;
  const [n, m] = [fileS.length, lineS.length];
  const reach = timed.some(Boolean) ? REACH_S : Infinity;
  const at = (i: number): number =>
    fileS[i]! - clock.offsetS - clock.drift * (fileS[i]! - clock.middleS);
  const low = new Int32Array(n + 1);
  const high = new Int32Array(n + 1);
  const start = new Int32Array(n + 2);
  for (let i = 0, a = 0, b = 0; i <= n; i++) {
    if (i > 0) while (a < m && lineS[a]! < at(i - 1) - reach) a++;
    if (i < n) while (b < m && lineS[b]! <= at(i) + reach) b++;
    else b = m;
    low[i] = a;
    high[i] = Math.max(a, b);
    start[i + 1] = start[i]! + high[i]! - low[i]! + 1;
  }
  return start[n + 1]! > MOST_CELLS ? null : { low, high, start, cells: start[n + 1]! };
}

// After a match, while lines are passed over, while files are. Files are passed over after lines, so
// that each assignment is counted once.
const [MATCHED, PAST_LINES, PAST_FILES] = [0, 1, 2] as const;

/** The lattice of all assignments at one clock: its cells, and the steps between them. */
function latticeOf(laid: Laid, clock: Clock, band: Band) {
  const { low, high, start, cells } = band;
  const files = low.length - 1;
  const lines = high[files]!;
  const found = Math.log(1 - Math.exp(laid.missing));
  const pairs = new Float64Array(cells).fill(NaN);
  const inside = (i: number, j: number): boolean => i <= files && j >= low[i]! && j <= high[i]!;
  const swapped = Math.log(SWAPPED) + 2 * found;
  return {
    band,
    files,
    lines,
    missing: laid.missing,
    cell: (i: number, j: number): number => (start[i]! + j - low[i]!) * 3,
    lineStep: inside,
    fileStep: (i: number, j: number): boolean => i < files && inside(i + 1, j),
    pairStep: (i: number, j: number): boolean => i < files && inside(i + 1, j + 1),
    // Two of the same settings that changed places cannot be told apart.
    swapStep: (i: number, j: number): boolean => laid.swaps[i] === true && inside(i + 2, j + 2),
    stray: (i: number): number => laid.stray[i]! + laid.common[i]!,
    pair: (i: number, j: number): number => {
      const key = start[i]! + j - low[i]!;
      const before = pairs[key]!;
      if (!Number.isNaN(before)) return before;
      return (pairs[key] = pairLog(laid, clock, i, j) + found);
    },
    swap: (i: number, j: number): number =>
      pairLog(laid, clock, i, j + 1) + pairLog(laid, clock, i + 1, j) + swapped,
  };
}

type Lattice = ReturnType<typeof latticeOf>;

/** Everything that leads to a cell, however it was come to. */
const anyOf = (of: Float64Array, c: number): number =>
  logAdd(logAdd(of[c]!, of[c + 1]!), of[c + 2]!);

function forwardPass(lattice: Lattice): Float64Array {
  const { band, cell, missing } = lattice;
  const made = new Float64Array(band.cells * 3).fill(-Infinity);
  const add = (to: number, value: number): void => {
    made[to] = logAdd(made[to]!, value);
  };
  made[cell(0, band.low[0]!) + MATCHED] = band.low[0]! * missing;
  for (let i = 0; i <= lattice.files; i++) {
    for (let j = band.low[i]!; j <= band.high[i]!; j++) {
      const c = cell(i, j);
      const all = anyOf(made, c);
      if (all === -Infinity) continue;
      if (lattice.lineStep(i, j + 1)) {
        add(cell(i, j + 1) + PAST_LINES, logAdd(made[c]!, made[c + 1]!) + missing);
      }
      if (lattice.fileStep(i, j)) add(cell(i + 1, j) + PAST_FILES, all + lattice.stray(i));
      if (lattice.pairStep(i, j)) add(cell(i + 1, j + 1) + MATCHED, all + lattice.pair(i, j));
      if (lattice.swapStep(i, j)) add(cell(i + 2, j + 2) + MATCHED, all + lattice.swap(i, j));
    }
  }
  return made;
}

function backwardPass(lattice: Lattice): Float64Array {
  const { band, cell } = lattice;
  const made = new Float64Array(band.cells * 3).fill(-Infinity);
  made.fill(0, cell(lattice.files, lattice.lines), cell(lattice.files, lattice.lines) + 3);
  for (let i = lattice.files; i >= 0; i--) {
    for (let j = band.high[i]!; j >= band.low[i]!; j--) {
      const c = cell(i, j);
      const line = lattice.lineStep(i, j + 1)
        ? made[cell(i, j + 1) + PAST_LINES]! + lattice.missing
        : -Infinity;
      let rest = -Infinity;
      if (lattice.fileStep(i, j)) {
        rest = logAdd(rest, made[cell(i + 1, j) + PAST_FILES]! + lattice.stray(i));
      }
      if (lattice.pairStep(i, j)) {
        rest = logAdd(rest, made[cell(i + 1, j + 1) + MATCHED]! + lattice.pair(i, j));
      }
      if (lattice.swapStep(i, j)) {
        rest = logAdd(rest, made[cell(i + 2, j + 2) + MATCHED]! + lattice.swap(i, j));
      }
      const onward = logAdd(line, rest);
      made[c] = logAdd(made[c]!, onward);
      made[c + 1] = logAdd(made[c + 1]!, onward);
      made[c + 2] = logAdd(made[c + 2]!, rest);
    }
  }
  return made;
}

export interface Passes {
  readonly total: number;
  readonly pairs: LikelyPair[];
}

/** Less likely than this a pair is not worth keeping. */
const LEAST_LIKELY = 1e-7;

/** Both passes. @returns how likely it all is, and each pair */
export function passes(laid: Laid, clock: Clock, band: Band): Passes {
  const lattice = latticeOf(laid, clock, band);
  const { cell } = lattice;
  const [forward, backward] = [forwardPass(lattice), backwardPass(lattice)];
  const total = anyOf(forward, cell(lattice.files, lattice.lines));
  const pairs: LikelyPair[] = [];
  const put = (i: number, j: number, log: number): void => {
    const likely = Math.exp(log - total);
    if (likely > LEAST_LIKELY) pairs.push([i, j, likely]);
  };
  for (let i = 0; i < lattice.files; i++) {
    for (let j = band.low[i]!; j <= band.high[i]!; j++) {
      const all = anyOf(forward, cell(i, j));
      if (all === -Infinity) continue;
      if (lattice.pairStep(i, j)) {
        put(i, j, all + lattice.pair(i, j) + backward[cell(i + 1, j + 1)]!);
      }
      if (lattice.swapStep(i, j)) {
        const both = all + lattice.swap(i, j) + backward[cell(i + 2, j + 2)]!;
        put(i, j + 1, both);
        put(i + 1, j, both);
      }
    }
  }
  return { total, pairs };
}
