import { newBudget, type Budget } from '@gangway/optics';
import {
  cardOf,
  evaluate,
  exposureWays,
  figuresOf,
  framingWays,
  isWhole,
  marksByFrame,
  matchFiles,
  mountsOf,
  notFinite,
  packingOf,
  parseJob,
  parseKitItem,
  parseRig,
  parseStation,
  rigProblems,
  rigStation,
  rigVerdict,
  shootingOrder,
  sizeOf,
  sparingMove,
  stationDigest,
  summaryOf,
  textsOf,
  waysOut,
  type Job,
  type KitItem,
  type Problem,
  type Result,
  type Rig,
  type Station,
} from '../../src/index.js';
import { isJson, randomOf, wide, type Json } from './draws.js';

export { drawnStations, randomOf } from './draws.js';

/**
 * Documents spoilt in every way that comes to mind, and what must hold of each: it is refused with
 * a pointer and a sentence, or taken, and then everything worked out from it is a finite number.
 */

interface Kind {
  readonly name: string;
  readonly parse: (document: unknown) => Result<unknown>;
  /** Works out all there is. @returns what must hold finite numbers only */
  readonly use: (value: never, random: () => number) => unknown;
}

/** Twice what one step may take past the end of a budget: five hundred marks every way, or four hundred frames judged together. */
const OVERSHOOT = 12_000_000;

export class PastBudget extends Error {}

/** Does work on a budget. @throws where it goes past its end by more than one step may */
function within<T>(steps: number, work: (budget: Budget) => T): T {
  const budget = newBudget(steps);
  const done = work(budget);
  if (budget.left < -OVERSHOOT) throw new PastBudget(`${steps - budget.left} steps of ${steps}`);
  return done;
}

const station: Kind = {
  name: 'station',
  parse: parseStation,
  use: (value: Station, random) => {
    // Most are asked for little, some for as much as a page asks.
    const report = within(random() < 0.9 ? 300_000 : 30_000_000, (budget) =>
      evaluate(value, budget),
    );
    if (random() > 0.15) return report;
    const digest = stationDigest(value);
    const ways = [waysOut(value), framingWays(value), exposureWays(value)].map(
      ({ length }) => length,
    );
    const card = cardOf(value);
    const frames = value.mosaic
      ? [
          shootingOrder(value).length,
          within(3_000_000, (budget) => sparingMove(value, budget).all),
          within(3_000_000, (budget) => marksByFrame(value, budget).length),
        ]
      : [];
    return [report, digest, ways, card.steps.length, frames];
  },
};

const rig: Kind = {
  name: 'rig',
  parse: parseRig,
  use: (value: Rig) => {
    if (!isWhole(value)) return null;
    const whole = rigStation(value);
    const report = evaluate(whole);
    // Problems carry ranges for their cures, open at an end; what is told of them is in the report.
    rigProblems(whole);
    return [report, rigVerdict(whole, report), figuresOf(value)];
  },
};

const item: Kind = {
  name: 'item',
  parse: parseKitItem,
  use: (value: KitItem) => [summaryOf(value), mountsOf(value), sizeOf(value), textsOf(value)],
};

/** Picture files for the lines of a log: by a clock of their own, some missing, some of nobody. */
const filesFor = ({ exposures }: Job, random: () => number) => {
  const offsetS = (random() - 0.5) * 2e5;
  return exposures.flatMap(({ at, time_s: timeS = null, iso = null }, i) =>
    random() < 0.1
      ? []
      : [
          {
            key: `P${i}`,
            name: `P${i}.RAW`,
            clockS: random() < 0.05 ? null : Date.parse(at) / 1000 + offsetS + random() * 4,
            camera: random() < 0.8 ? 'a' : 'b',
            timeS,
            iso,
          },
        ],
  );
};

const job: Kind = {
  name: 'job',
  parse: parseJob,
  use: (value: Job, random) => {
    const stations = value.stations.map(({ document }) => document);
    const lines = value.exposures.map(
      ({ id, at, bracket = null, time_s: timeS = null, iso = null }) => ({
        id,
        clockS: Date.parse(at) / 1000,
        bracket,
        timeS,
        iso,
      }),
    );
    const files = filesFor(value, random);
    return [
      packingOf(stations, value.kit ?? []),
      stations.map(stationDigest),
      within(20_000_000, (budget) => matchFiles(files, lines, {}, budget)),
    ];
  },
};

export interface Seeds {
  readonly stations: readonly unknown[];
  readonly rigs: readonly unknown[];
  readonly items: readonly unknown[];
  readonly jobs: readonly unknown[];
}

/** Ends of ranges, what lies a hair past them, and what no range has. */
const NUMBERS = [
  0, -0, 1, -1, 0.5, 2, 1024, 1025, 5000, 5001, 10_000, 20_000, 20_001, 1e6, 1e9, -5000, -20_000,
  80, -80, 80.1, 90, 360, -360, 0.0001, 0.00001, 0.1, 0.05, 0.001, 100, 1e5, -1e5, 1e-6, 2_592_000,
  0.95, 1e-308, 5e-324, 1e308, -1e308, 2 ** 53, 1.5, 0.01,
]; // prettier-ignore

const ODD: readonly unknown[] = [
  null, true, false, '', ' ', 'x'.repeat(201), 'f/8', '12', 'ha\ud83dlf', '\u0000', 'é', '👨‍👩‍👧', [], {},
  [[]], { a: { b: {} } }, [1, 2], [2, 1], [0, 0], 'landscape', 'portrait', 'front', 'rear', 'sharp',
  'soft', 'free', 'grid', 'pinwheel', 'adapter', 'multiplier', 'board', 'view_camera', 'lens', 'camera',
]; // prettier-ignore

const NAMES = ['__proto__', 'constructor', 'toString', 'later', '', '/', '~', 'ha\udc00lf'];

/** A list in JSON has entries only: one more of them then. */
const newName = (holder: Json, name: string): string =>
  Array.isArray(holder) ? String(holder.length) : name;

/** Every place in a document, by its holder and key. */
function places(root: unknown, found: [Json, string][] = []): [Json, string][] {
  if (!isJson(root)) return found;
  for (const key of Object.keys(root)) {
    found.push([root, key]);
    places((root as Record<string, unknown>)[key], found);
  }
  return found;
}

function mutate(document: unknown, others: readonly unknown[], random: () => number): unknown {
  const pick = <T>(from: readonly T[]): T => from[Math.floor(random() * from.length)]!;
  const number = (): number =>
    random() < 0.6 ? pick(NUMBERS) : Math.sign(random() - 0.3) * 10 ** (random() * 14 - 6);
  const root = structuredClone(document);
  const times = 1 + Math.floor(random() * 5);
  for (let i = 0; i < times; i++) {
    const all = places(root);
    if (all.length === 0) break;
    const [holder, key] = pick(all);
    const at = holder as Record<string, unknown>;
    const way = random();
    if (way < 0.55) {
      // Figures are most of a document, and most of what can go wrong.
      const figures = all.filter(([of, name]) => typeof (of as typeof at)[name] === 'number');
      if (figures.length > 0) {
        const [of, name] = pick(figures);
        (of as typeof at)[name] = number();
      }
    } else if (way < 0.63) at[key] = structuredClone(pick(ODD));
    else if (way < 0.71) {
      if (Array.isArray(holder)) {
        // Not by splice, which asks the list for its constructor: that may be spoilt by now.
        holder.copyWithin(Number(key), Number(key) + 1);
        holder.pop();
      } else delete at[key];
    } else if (way < 0.79) {
      // A part of another document in the place of its namesake, or as a new one.
      const donor = places(pick(others)).filter(([, name]) => name === key || random() < 0.02);
      if (donor.length > 0) {
        const [of, name] = pick(donor);
        const part = structuredClone((of as typeof at)[name]);
        if (Array.isArray(holder)) holder.push(part);
        else at[name] = part;
      }
    } else if (way < 0.87) {
      const lists = all.filter(([of, name]) => Array.isArray((of as typeof at)[name]));
      if (lists.length > 0) {
        const [of, name] = pick(lists);
        const list = (of as Record<string, unknown[]>)[name]!;
        const more = random() < 0.05 ? 500 : 1 + Math.floor(random() * 3);
        for (let n = 0; n < more && list.length > 0 && list.length < 501; n++) {
          list.push(structuredClone(pick(list)));
        }
      }
    } else if (way < 0.93) {
      const name = newName(holder, pick(NAMES));
      Object.defineProperty(at, name, { value: structuredClone(pick(ODD)), enumerable: true, configurable: true, writable: true }); // prettier-ignore
    } else {
      let deep: unknown = number();
      for (let n = 0; n < random() * 60; n++) deep = random() < 0.5 ? [deep] : { deep };
      at[key] = deep;
    }
  }
  return root;
}

const RANGE = /from (-?[\d.,]+) to (-?[\d.,]+)/;

/** Puts what was refused for its size inside its range, most often at an end: then it is taken. */
function mended(document: unknown, read: Result<unknown>, random: () => number): unknown {
  if (read.ok) return document;
  const root = structuredClone(document);
  for (const { pointer, message } of read.problems) {
    const ends = RANGE.exec(message);
    if (!ends) continue;
    const [least, most] = [ends[1]!, ends[2]!].map((text) => Number(text.replaceAll(',', '')));
    const keys = pointer.split('/').slice(1);
    let at = root as Record<string, unknown> | undefined;
    for (const key of keys.slice(0, -1)) at = at?.[key] as typeof at;
    if (!isJson(at)) continue;
    const where = random();
    at[keys.at(-1)!] =
      where < 0.35 ? least : where < 0.7 ? most : least! + (most! - least!) * random() ** 3;
  }
  return root;
}

export interface Found {
  readonly index: number;
  readonly what: string;
  readonly document: unknown;
}

export interface Outcome {
  readonly taken: number;
  readonly refused: number;
  readonly found: readonly Found[];
}

const TRIES = 6;
/** Places told of a crash. */
const STACK_LINES = 6;

/** A problem that is not a pointer and a sentence, if there is one. */
const unsaid = (problems: readonly Problem[]): string | undefined =>
  problems
    .filter(({ pointer, message }) => {
      const sentence = message.length >= 5 && message.length <= 400;
      return !sentence || !/^(\/.*)?$/s.test(pointer);
    })
    .map(({ pointer, message }) => `problem ${pointer} “${message}”`)[0];

/** Spoils `count` documents, each by its own number, and says what did not hold. */
export function runMutations(
  seeds: Seeds,
  count: number,
  seed: number,
  onEach: (index: number, document: unknown) => void = () => {},
): Outcome {
  const [found, tally]: [Found[], { taken: number; refused: number }] = [
    [],
    { taken: 0, refused: 0 },
  ];
  for (let index = 0; index < count; index++) {
    const random = randomOf(seed + index * 7919);
    const which = random();
    const [kind, from] =
      which < 0.8
        ? [station, seeds.stations]
        : which < 0.88
          ? [rig, seeds.rigs]
          : which < 0.98
            ? [item, seeds.items]
            : [job, seeds.jobs];
    const chosen = from[Math.floor(random() * from.length)];
    let document = random() < 0.5 ? wide(chosen, random) : mutate(chosen, from, random);
    onEach(index, document);
    try {
      let read = kind.parse(document);
      for (let tries = 0; !read.ok && tries < TRIES; tries++) {
        const what = unsaid(read.problems);
        if (what !== undefined) found.push({ index, what, document });
        document = mended(document, read, random);
        read = kind.parse(document);
      }
      tally[read.ok ? 'taken' : 'refused'] += 1;
      if (!read.ok) continue;
      const wrong = notFinite(kind.use(read.value as never, random));
      if (wrong) found.push({ index, what: `${kind.name} ${wrong}`, document });
    } catch (error) {
      const { name, message, stack } = error as Error;
      const place = (stack ?? '')
        .split('\n')
        .slice(1, STACK_LINES)
        .map((line) => line.trim())
        .join(' ');
      found.push({ index, what: `${kind.name} ${name}: ${message} ${place}`, document });
    }
  }
  return { ...tally, found };
}
