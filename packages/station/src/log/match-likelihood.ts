import type { Effort } from '@gangway/optics';
import type { LogLine, PictureFile } from './match-types.js';

/** How likely it is that a file belongs to a line, or to none, by its time and its settings. */

export interface Sequence {
  readonly files: readonly PictureFile[];
  readonly lines: readonly LogLine[];
  /** Of the whole shoot: with several, most lines have no file of this one. */
  readonly cameras: number;
  /** What the whole matching may still cost. */
  readonly effort: Effort;
}

// What people do at a camera (common practice, no source): how often a line has no file, a file no
// line; how long after the shot it is logged; how often a change is made and not
// written down.
const LINE_WITHOUT_FILE = 0.04;
const FILE_WITHOUT_LINE = 0.04;
/** Made twice and logged once: the second soon after the first, s. */
const TWICE = { share: 0.04, withinS: 10 } as const;
const SETTING_DIFFERS = 0.06;
/** Spread of the time from shot to line, s, and shares of those who were held up. */
export const SPREAD_S = 4;
const HELD_UP = { share: 0.12, spreadS: 30 } as const;
const LONG_AFTER = { share: 0.02, spreadS: 150 } as const;
/** Settings within this are the same, stops. */
const SAME_STOPS = 0.4;

export const ROOT_2PI = Math.sqrt(2 * Math.PI);

export interface Clock {
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
export const coreShare = (r: number, spreadS: number): number =>
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

/** Everything about a sequence that does not hang on the clock. */
export interface Laid {
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

export function laidOut(sequence: Sequence): Laid {
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
export const apart = ({ fileS, lineS }: Laid, clock: Clock, i: number, j: number): number =>
  fileS[i]! - lineS[j]! - clock.offsetS - clock.drift * (fileS[i]! - clock.middleS);

/** log likelihood of one pair, its file’s settings and time with it. */
export function pairLog(laid: Laid, clock: Clock, i: number, j: number): number {
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
