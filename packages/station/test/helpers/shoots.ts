import type { LogLine, PictureFile } from '../../src/log/index.js';

/** Shoots as they go: what happened, what the camera noted, what was logged. */

export interface Shoot {
  readonly files: readonly PictureFile[];
  readonly lines: readonly LogLine[];
  /** Which line each file truly belongs to. */
  readonly truth: ReadonlyMap<string, string | null>;
  readonly offsetS: number;
  readonly even: boolean;
}

/** Small and repeatable (mulberry32, public domain). */
export function random(seed: number): () => number {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = a;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

const TIMES = [1 / 125, 1 / 30, 1 / 8, 1 / 4, 1, 4];

interface Taken {
  readonly atS: number;
  readonly timeS: number;
  readonly iso: number;
  readonly logged: boolean;
  readonly filed: boolean;
  /** Several in one tap: when the last of them was made. */
  readonly tapS: number | null;
  readonly bracket: number | null;
}

/** Chances that are drawn from. */
function dice(seed: number) {
  const next = random(seed);
  const between = (low: number, high: number): number => low + (high - low) * next();
  return { next, between, chance: (p: number): boolean => next() < p };
}

type Dice = ReturnType<typeof dice>;

/** The same again and again, as by a timer; one may be gone. */
function evenSeries({ next, between, chance }: Dice): Taken[] {
  const [step, count] = [between(15, 60), Math.round(between(6, 20))];
  const gone = chance(0.7) ? Math.floor(next() * count) : -1;
  return Array.from({ length: count }, (_, i) => ({
    ...{ atS: i * step, timeS: 0.25, iso: 100, logged: true, filed: i !== gone },
    ...{ tapS: null, bracket: null },
  }));
}

/** A day of stations: single pictures, frames of mosaics, brackets. */
function stationsOf({ next, between, chance }: Dice): Taken[] {
  const [dropped, doubled] = [between(0, 0.08), between(0, 0.06)];
  const taken: Taken[] = [];
  const take = (
    one: Pick<Taken, 'atS' | 'timeS' | 'iso' | 'tapS' | 'bracket'>,
    may = true,
  ): void => {
    const twice = may && chance(doubled);
    // Of an exposure made twice at least one stays.
    const filed = twice || !(may && chance(dropped));
    taken.push({ ...one, logged: true, filed });
    if (!twice) return;
    const atS = one.atS + between(2, 9);
    taken.push({ ...one, atS, logged: false, filed: true, tapS: null, bracket: null });
  };
  const stations = Math.round(between(2, 12));
  for (let s = 0, now = 0; s < stations; s++) {
    now += chance(0.2) ? between(600, 3600) : between(90, 600);
    const timeS = TIMES[Math.floor(next() * TIMES.length)]!;
    const common = { iso: chance(0.8) ? 100 : 400, tapS: null, bracket: null };
    const kind = next();
    if (kind < 0.35) {
      const count = Math.round(between(1, 4));
      for (let i = 0; i < count; i++, now += between(20, 150)) {
        take({ ...common, atS: now, timeS: timeS * 2 ** (i % 3) });
      }
    } else if (kind < 0.65) {
      const count = Math.round(between(3, 8));
      for (let i = 0; i < count; i++, now += between(9, 30)) take({ ...common, atS: now, timeS });
    } else {
      const [count, together] = [chance(0.5) ? 3 : 5, chance(0.5)];
      const tapS = together ? now + count * 1.5 : null;
      for (let i = 0; i < count; i++, now += 1.5) {
        const one = { ...common, atS: now, timeS: timeS * 4 ** (i - 1), tapS, bracket: i + 1 };
        take(one, !together || chance(0.3));
      }
    }
  }
  return taken.sort((a, b) => a.atS - b.atS);
}

const START_S = 1_700_000_000;

const lineId = (index: number): string => `line ${index}`;

/** What was logged, one tap after the other; that of a whole bracket is one. */
function logged(taken: readonly Taken[], { next, between, chance }: Dice): LogLine[] {
  let [tapped, sameTap] = [-Infinity, null as number | null];
  return taken.flatMap(({ atS, timeS, iso, tapS, bracket, logged: is }, i) => {
    if (!is) return [];
    const delay = chance(0.05) ? between(10, 60) : 1 + 6 * next() ** 2;
    const noted = chance(0.04) ? timeS * 2 : timeS;
    if (tapS === null || tapS !== sameTap) tapped = Math.max(tapped + 0.5, (tapS ?? atS) + delay);
    sameTap = tapS;
    return [{ id: lineId(i), clockS: START_S + tapped, bracket, timeS: noted, iso }];
  });
}

/** Two here and there were written down the wrong way round. */
function withSwaps(lines: LogLine[], { chance }: Dice): LogLine[] {
  for (let i = 1; i < lines.length; i++) {
    const [a, b] = [lines[i - 1]!, lines[i]!];
    if (a.timeS === b.timeS || a.clockS === b.clockS || !chance(0.01)) continue;
    lines[i - 1] = { ...b, clockS: a.clockS, bracket: null };
    lines[i] = { ...a, clockS: b.clockS, bracket: null };
  }
  return lines;
}

export function shoot(seed: number): Shoot {
  const luck = dice(seed);
  const { next, between, chance } = luck;
  const even = chance(0.08);
  const taken = even ? evenSeries(luck) : stationsOf(luck);
  const offsetS = between(-86_400, 86_400);
  const drift = between(-5, 5) / 36_000;
  const tells = chance(0.75);
  let number = Math.floor(between(1, 9999));
  const files: PictureFile[] = [];
  const truth = new Map<string, string | null>();
  taken.forEach(({ atS, timeS, iso, logged: is, filed }, i) => {
    // Names start again at 0001 after 9999.
    const name = `P${String(number).padStart(4, '0')}.RAW`;
    number = number === 9999 ? 1 : number + 1;
    if (!filed) return;
    truth.set(name, is ? lineId(i) : null);
    files.push({
      key: name,
      name,
      clockS: Math.floor(START_S + atS + offsetS + drift * atS),
      camera: '',
      timeS: tells ? timeS : null,
      iso: tells ? iso : null,
    });
  });
  const all = logged(taken, luck);
  // Where no settings are told, nothing could show that two were swapped.
  const lines = tells ? withSwaps(all, luck) : all;
  // The log comes in any order, those of one tap among themselves in their own.
  const shuffled = lines
    .map((line) => ({ line, at: Math.floor(next() * 4) }))
    .sort((a, b) => a.at - b.at || a.line.clockS - b.line.clockS)
    .map(({ line }) => line);
  return { files, lines: chance(0.3) ? shuffled : lines, truth, offsetS, even };
}

/** A line is made from a little before to this long after what its file’s clock says, s. */
const [BEFORE_S, AFTER_S] = [3, 15];
/** Clocks farther apart than this are not the same. */
const OTHER_CLOCK_S = 20;

const near = ({ lines }: Shoot, file: PictureFile, offsetS: number): LogLine[] =>
  lines.filter(({ clockS }) => {
    const after = clockS - (file.clockS! - offsetS);
    return after >= -BEFORE_S && after <= AFTER_S;
  });

/** Files that find a line near them at an offset, each line once, by brute force. */
function foundAt(s: Shoot, offsetS: number): number {
  const taken = new Set<string>();
  for (const file of s.files) {
    const free = near(s, file, offsetS).find(({ id }) => !taken.has(id));
    if (free) taken.add(free.id);
  }
  return taken.size;
}

const agree = (file: PictureFile, line: LogLine): boolean =>
  file.timeS === null ||
  (Math.abs(Math.log2(file.timeS / line.timeS!)) < 0.3 && file.iso === line.iso);

/**
 * The files whose line a careful person would find: told by hard bounds on times and by settings
 * alone, with the true clock known to fit better than any other. Knows nothing of likelihoods.
 */
export function decided(s: Shoot): Set<string> {
  const own = foundAt(s, s.offsetS);
  const others = new Set(
    s.files.flatMap((file) => s.lines.map((line) => Math.round(file.clockS! - line.clockS + 5))),
  );
  for (const offsetS of others) {
    if (Math.abs(offsetS - s.offsetS) > OTHER_CLOCK_S && foundAt(s, offsetS) >= own - 3)
      return new Set();
  }
  const found = new Set<string>();
  const left = new Set(s.files);
  while (left.size > 0) {
    const [first] = left;
    const [files, lines] = [new Set([first!]), new Set<LogLine>()];
    for (let grown = true; grown;) {
      const before = files.size + lines.size;
      for (const file of files) near(s, file, s.offsetS).forEach((line) => lines.add(line));
      for (const file of left) {
        if (near(s, file, s.offsetS).some((line) => lines.has(line))) files.add(file);
      }
      grown = files.size + lines.size > before;
    }
    files.forEach((file) => left.delete(file));
    if (files.size !== lines.size) continue;
    const inOrder = [...files].sort(
      (a, b) => a.clockS! - b.clockS! || a.name.localeCompare(b.name),
    );
    const logged = [...lines].sort(
      (a, b) => a.clockS - b.clockS || (a.bracket ?? 0) - (b.bracket ?? 0),
    );
    const told = inOrder.every((file, i) => agree(file, logged[i]!));
    const apart =
      files.size === 1 ||
      inOrder.every(
        ({ timeS }, i) =>
          timeS !== null && (i === 0 || Math.abs(Math.log2(timeS / inOrder[i - 1]!.timeS!)) > 0.7),
      );
    if (told && apart) inOrder.forEach(({ key }) => found.add(key));
  }
  return found;
}
