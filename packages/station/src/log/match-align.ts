import type { LogLine, PictureFile } from './match-types.js';

/**
 * Files laid against lines in their order, at one clock offset: the forward and backward passes of a
 * pair hidden Markov model (Durbin, Eddy, Krogh, Mitchison: Biological Sequence Analysis, 1998,
 * ch. 4), with offset, drift and spread of the clock fitted to what comes out and the passes made
 * again.
 */

export interface Sequence {
  readonly files: readonly PictureFile[];
  readonly lines: readonly LogLine[];
  /** Of the whole shoot: with several, most lines have no file of this one. */
  readonly cameras: number;
}

export interface Candidate {
  readonly offsetS: number;
  /** Width of what was thought possible before the data, s; null: nothing belongs together. */
  readonly priorWidthS: number | null;
  /** It is known to this already and is not fitted farther away, s. */
  readonly heldToS?: number;
}

/** File, line, how likely. */
export type LikelyPair = readonly [file: number, line: number, likely: number];

export interface Aligned {
  /** Null: nothing belongs together. */
  readonly offsetS: number | null;
  readonly logLikelihood: number;
  readonly pairs: readonly LikelyPair[];
}

// What people do at a camera (common practice, no source): how often a line has no file, a file no
// line; how long after the shot it is logged; how often a change is made and not written down.
const LINE_WITHOUT_FILE = 0.04;
const FILE_WITHOUT_LINE = 0.04;
/** Made twice and logged once: the second soon after the first, s. */
const TWICE = { share: 0.04, withinS: 10 } as const;
const SWAPPED = 0.0003;
const SETTING_DIFFERS = 0.06;
/** Spread of the time from shot to line, s, and shares of those who were held up. */
export const SPREAD_S = 4;
const LEAST_SPREAD_S = 1.5;
const MOST_SPREAD_S = 10;
const HELD_UP = { share: 0.12, spreadS: 30 } as const;
const LONG_AFTER = { share: 0.02, spreadS: 150 } as const;
/** A line farther off than this is no file’s, s. */
const REACH_S = 400;
/** Clocks part by so much in a day, s: common practice, no source. */
const DRIFT_S_PER_DAY = 8;
/** Rounds of fitting: to see whether an offset is worth it, and to settle it. */
export const ROUGHLY = 1;
export const CLOSELY = 4;
/** Settings within this are the same, stops. */
const SAME_STOPS = 0.4;
/** Without any times only a lattice this large is gone through. */
const MOST_CELLS = 6_000_000;

const ROOT_2PI = Math.sqrt(2 * Math.PI);

interface Clock {
  offsetS: number;
  /** s a second, about the middle of the shoot. */
  drift: number;
  middleS: number;
  spreadS: number;
}

const gauss = (r: number, spread: number): number => {
  const z = r / spread;
  return z > 9 || z < -9 ? 0 : Math.exp(-0.5 * z * z) / (spread * ROOT_2PI);
};

const density = (r: number, spreadS: number): number =>
  (1 - HELD_UP.share - LONG_AFTER.share) * gauss(r, spreadS) +
  HELD_UP.share * gauss(r, HELD_UP.spreadS) +
  LONG_AFTER.share * gauss(r, LONG_AFTER.spreadS);

/** How much of a pair at this distance lies in the narrow part of the spread. */
const coreShare = (r: number, spreadS: number): number =>
  ((1 - HELD_UP.share - LONG_AFTER.share) * gauss(r, spreadS)) / density(r, spreadS);

const same = (a: number | null, b: number | null): boolean | null =>
  a === null || b === null ? null : Math.abs(Math.log2(a / b)) <= SAME_STOPS;

/** Whether both were exposed alike; null where it cannot be told. */
export function alike(file: PictureFile, line: LogLine): boolean | null {
  const [time, iso] = [same(file.timeS, line.timeS), same(file.iso, line.iso)];
  if (time === null && iso === null) return null;
  return time !== false && iso !== false;
}

const settingKey = ({ timeS, iso }: PictureFile): string =>
  `${timeS === null ? '' : Math.round(Math.log2(timeS) * 2)} ${iso === null ? '' : Math.round(Math.log2(iso) * 2)}`;

/** What is this much less likely adds nothing that counts, nats. */
const NOTHING = 34;

function logAdd(a: number, b: number): number {
  const [most, least] = a > b ? [a, b] : [b, a];
  return least < most - NOTHING || least === -Infinity
    ? most
    : most + Math.log1p(Math.exp(least - most));
}

/** Everything about a sequence that does not hang on the clock. */
interface Laid {
  readonly sequence: Sequence;
  /** By the camera’s clock; where a file does not tell, that of the one before it. */
  readonly fileS: Float64Array;
  readonly lineS: Float64Array;
  readonly timed: readonly boolean[];
  /** log of the density of files that belong to no line, 1/s: anywhere, or right beside another. */
  readonly stray: Float64Array;
  /** log of how common each file’s settings are. */
  readonly common: Float64Array;
  readonly missing: number;
  /** Whether a file and the one after it differ in their settings. */
  readonly swaps: readonly boolean[];
}

const laidBefore = new WeakMap<Sequence, Laid>();

function laidOut(sequence: Sequence): Laid {
  const before = laidBefore.get(sequence);
  if (before) return before;
  const { files, lines, cameras } = sequence;
  const fileS = new Float64Array(files.length);
  let last = files.find(({ clockS }) => clockS !== null)?.clockS ?? 0;
  files.forEach(({ clockS }, i) => (fileS[i] = last = clockS ?? last));
  const spanS = Math.max(1800, fileS.length > 0 ? fileS.at(-1)! - fileS[0]! : 0);
  const counts = new Map<string, number>();
  for (const file of files) counts.set(settingKey(file), (counts.get(settingKey(file)) ?? 0) + 1);
  const made: Laid = {
    sequence,
    fileS,
    lineS: Float64Array.from(lines, ({ clockS }) => clockS),
    timed: files.map(({ clockS }) => clockS !== null),
    stray: Float64Array.from(files, (_, i) => {
      const near = [i - 1, i + 1].some(
        (other) =>
          other >= 0 &&
          other < files.length &&
          Math.abs(fileS[other]! - fileS[i]!) <= TWICE.withinS &&
          settingKey(files[other]!) === settingKey(files[i]!),
      );
      const twice = near ? TWICE.share / TWICE.withinS : 0;
      return Math.log((FILE_WITHOUT_LINE * Math.max(files.length, 4)) / spanS + twice);
    }),
    common: Float64Array.from(files, (file) =>
      Math.log(Math.max(0.1, counts.get(settingKey(file))! / files.length)),
    ),
    swaps: files.map(
      (file, i) => i + 1 < files.length && settingKey(file) !== settingKey(files[i + 1]!),
    ),
    missing: Math.log(Math.min(0.7, LINE_WITHOUT_FILE + (cameras - 1) * 0.3)),
  };
  laidBefore.set(sequence, made);
  return made;
}

/** Seconds a pair is apart once the clock is corrected. */
const apart = ({ fileS, lineS }: Laid, clock: Clock, i: number, j: number): number =>
  fileS[i]! - lineS[j]! - clock.offsetS - clock.drift * (fileS[i]! - clock.middleS);

/** log likelihood of one pair, its file’s settings and time with it. */
function pairLog(laid: Laid, clock: Clock, i: number, j: number): number {
  const { files, lines } = laid.sequence;
  const time = laid.timed[i]
    ? Math.log(density(apart(laid, clock, i, j), clock.spreadS))
    : laid.stray[i]!;
  const match = alike(files[i]!, lines[j]!);
  const settings =
    match === null
      ? laid.common[i]!
      : match
        ? Math.log(1 - SETTING_DIFFERS)
        : Math.log(SETTING_DIFFERS) + Math.min(0, laid.common[i]!);
  return time + settings;
}

/** Which cells of the lattice are looked at: for i files done, the numbers of lines done. */
interface Band {
  readonly low: Int32Array;
  readonly high: Int32Array;
  readonly start: Int32Array;
  readonly cells: number;
}

function bandOf(laid: Laid, clock: Clock): Band | null {
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

interface Passes {
  readonly total: number;
  readonly pairs: LikelyPair[];
}

/** Less likely than this a pair is not worth keeping. */
const LEAST_LIKELY = 1e-7;

/** Both passes. @returns how likely it all is, and each pair */
function passes(laid: Laid, clock: Clock, band: Band): Passes {
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

/** The clock as the likely pairs have it: a line through their differences, and how they scatter. */
function fitted(
  laid: Laid,
  clock: Clock,
  pairs: readonly LikelyPair[],
  candidate: Candidate,
): Clock {
  let [w, wx, wy, wxx, wxy] = [0, 0, 0, 0, 0];
  for (const [i, j, likely] of pairs) {
    if (!laid.timed[i]) continue;
    const r = apart(laid, clock, i, j);
    const weight = likely * coreShare(r, clock.spreadS);
    const x = (laid.fileS[i]! - clock.middleS) / 86_400;
    const y = laid.fileS[i]! - laid.lineS[j]! - candidate.offsetS;
    w += weight;
    wx += weight * x;
    wy += weight * y;
    wxx += weight * x * x;
    wxy += weight * x * y;
  }
  // A drift has to be shown by the data before it is believed: its own spread is the prior.
  const slack = (clock.spreadS / DRIFT_S_PER_DAY) ** 2;
  const hold = candidate.heldToS === undefined ? 1e-6 : (clock.spreadS / candidate.heldToS) ** 2;
  const [a, b, c] = [w + hold, wx, wxx + slack];
  const determinant = a * c - b * b;
  const offset = (c * wy - b * wxy) / determinant;
  const drift = (a * wxy - b * wy) / determinant;
  let [sum, count] = [0, 0];
  const next: Clock = {
    ...clock,
    offsetS: candidate.offsetS + offset,
    drift: drift / 86_400,
  };
  for (const [i, j, likely] of pairs) {
    if (!laid.timed[i]) continue;
    const r = apart(laid, next, i, j);
    const weight = likely * coreShare(r, clock.spreadS);
    sum += weight * r * r;
    count += weight;
  }
  // Few pairs say little of how they scatter: the usual counts as four more.
  const spread = Math.sqrt((sum + 4 * SPREAD_S ** 2) / (count + 4));
  return { ...next, spreadS: Math.min(MOST_SPREAD_S, Math.max(LEAST_SPREAD_S, spread)) };
}

/** What the data make of one clock offset. */
export function align(sequence: Sequence, candidate: Candidate, rounds: number): Aligned {
  const laid = laidOut(sequence);
  const { files, lines } = sequence;
  const apartAll =
    files.reduce((sum, _, i) => sum + laid.stray[i]! + laid.common[i]!, 0) +
    lines.length * laid.missing;
  if (candidate.priorWidthS === null) {
    return { offsetS: null, logLikelihood: apartAll, pairs: [] };
  }
  const middleS = laid.fileS.length === 0 ? 0 : (laid.fileS[0]! + laid.fileS.at(-1)!) / 2;
  let clock: Clock = { offsetS: candidate.offsetS, drift: 0, middleS, spreadS: SPREAD_S };
  let result: Passes | null = null;
  for (let round = 0; round < rounds; round++) {
    const band = bandOf(laid, clock);
    if (!band) break;
    result = passes(laid, clock, band);
    clock = fitted(laid, clock, result.pairs, candidate);
  }
  if (!result) return { offsetS: null, logLikelihood: apartAll, pairs: [] };
  const count = result.pairs.reduce((sum, [, , likely]) => sum + likely, 0);
  // How much of what was thought possible before is left: what a free offset costs.
  const widthS = (clock.spreadS * ROOT_2PI) / Math.sqrt(Math.max(1, count));
  const cost = Math.log(Math.min(1, widthS / candidate.priorWidthS));
  return { offsetS: clock.offsetS, logLikelihood: result.total + cost, pairs: result.pairs };
}
