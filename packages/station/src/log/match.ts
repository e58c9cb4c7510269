import { align, CLOSELY, ROUGHLY, type Aligned } from './match-align.js';
import { alike, type Sequence } from './match-likelihood.js';
import { offsetCandidates } from './match-offset.js';
import type { LogLine, MatchOptions, Matched, Offset, Pair, PictureFile } from './match-types.js';
import { effortOf, mostOf, newBudget, type Budget } from '@gangway/optics';

/**
 * Which picture file belongs to which line of the log. What is known of a file is when its camera’s
 * clock says it was made, its place by name, and sometimes its exposure; of a line, when it was
 * logged and what was set. Both are put in order and laid against each other, for every clock
 * offset that the data allow, with lines that have no file and files that have no line. What is
 * told is how likely each pair is over all of that; a pair is sure only when everything else is
 * much less likely.
 */

/** Sure is what leaves less than this to everything else together. */
export const DOUBT = 0.002;

/** An offset so much less likely before it is fitted does not catch up, nats. */
const FAR_BEHIND = 45;

/** Offsets that come this near once they are fitted lead to the same, s. */
const SAME_CLOCK_S = 0.5;

/** Offsets nearer than this to each other are one: within it the same pairs come out. */
const SAME_OFFSET_S = 2;

const natural = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

/**
 * Files of one camera in the order they were made: by its clock, and by name where it stood still.
 * A file without a time follows the one before it by name.
 */
function inOrder(files: readonly PictureFile[]): PictureFile[] {
  const byName = [...files].sort((a, b) => natural.compare(a.name, b.name));
  let last = -Infinity;
  const placed = byName.map((file, index) => {
    last = file.clockS ?? last;
    return { file, index, at: last };
  });
  const first = placed.find(({ at }) => at > -Infinity)?.at ?? 0;
  return placed
    .map((each) => ({ ...each, at: each.at === -Infinity ? first : each.at }))
    .sort((a, b) => a.at - b.at || a.index - b.index)
    .map(({ file }) => file);
}

/** Lines by their clock, those of one tap by their place in the bracket. */
const linesInOrder = (lines: readonly LogLine[]): LogLine[] =>
  lines
    .map((line, index) => ({ line, index }))
    .sort(
      (a, b) =>
        a.line.clockS - b.line.clockS ||
        (a.line.bracket ?? 0) - (b.line.bracket ?? 0) ||
        a.index - b.index,
    )
    .map(({ line }) => line);

interface OfCamera {
  readonly pairs: readonly Pair[];
  readonly offset: Offset;
}

/** One camera’s files against the lines that are free. */
function matchCamera(
  sequence: Sequence,
  fixed: readonly { file: PictureFile; line: LogLine }[],
  givenS: number | null,
): OfCamera {
  const candidates = offsetCandidates(sequence, fixed, givenS);
  const rough = candidates.map((candidate) => align(sequence, candidate, ROUGHLY));
  const best = mostOf(rough.map(({ logLikelihood }) => logLikelihood));
  const worth = rough
    .map((each, i) => ({ ...each, candidate: candidates[i]! }))
    .filter(({ logLikelihood }) => logLikelihood > best - FAR_BEHIND)
    .sort((a, b) => b.logLikelihood - a.logLikelihood);
  // Those that the data draw to the same clock are one.
  const apart = worth.filter(
    ({ offsetS }, i) =>
      offsetS === null ||
      worth
        .slice(0, i)
        .every(
          (before) => before.offsetS === null || Math.abs(before.offsetS - offsetS) > SAME_CLOCK_S,
        ),
  );
  const aligned = apart.map(({ candidate }) => align(sequence, candidate, CLOSELY));
  return weighed(sequence, aligned, givenS);
}

function weighed(
  { files, lines }: Sequence,
  aligned: readonly Aligned[],
  givenS: number | null,
): OfCamera {
  const best = mostOf(aligned.map(({ logLikelihood }) => logLikelihood));
  const weights = aligned.map(({ logLikelihood }) => Math.exp(logLikelihood - best));
  const total = weights.reduce((sum, each) => sum + each, 0);
  const chance = files.map(() => new Map<number, number>());
  aligned.forEach(({ pairs }, a) => {
    const weight = weights[a]! / total;
    if (weight < 1e-9) return;
    for (const [file, line, likely] of pairs) {
      const of = chance[file]!;
      of.set(line, (of.get(line) ?? 0) + weight * likely);
    }
  });
  const offset = offsetOf(
    aligned,
    weights.map((each) => each / total),
    givenS,
  );
  const pairs = settled(files, lines, chance);
  return {
    // Of a clock that nobody knows nothing can be said that is not there.
    pairs:
      offset.kind === 'undecided'
        ? pairs.map((pair) => (pair.line === null ? { ...pair, sure: false } : pair))
        : pairs,
    offset,
  };
}

/** The likeliest pairs, no line twice. */
function settled(
  files: readonly PictureFile[],
  lines: readonly LogLine[],
  chance: readonly ReadonlyMap<number, number>[],
): Pair[] {
  const all = chance.flatMap((of, file) =>
    [...of].map(([line, likely]) => ({ file, line, likely })),
  );
  all.sort((a, b) => b.likely - a.likely || a.file - b.file || a.line - b.line);
  const found = new Map<number, { line: number; likely: number }>();
  const taken = new Set<number>();
  for (const { file, line, likely } of all) {
    if (found.has(file) || taken.has(line)) continue;
    const none = noneOf(chance[file]!);
    // More likely than not to belong to none.
    if (none > likely) continue;
    found.set(file, { line, likely });
    taken.add(line);
  }
  const beside = besideALeftOne(files, lines, found, taken);
  return files.map((file, i): Pair => {
    const own = found.get(i);
    const likely = own?.likely ?? noneOf(chance[i]!);
    const pair = { file: file.key, line: own ? lines[own.line]!.id : null, by: 'data', likely } as const; // prettier-ignore
    const left = beside.get(i);
    // What was exposed otherwise than logged is shown to the person, however well the times agree.
    const otherwise = own !== undefined && alike(file, lines[own.line]!) === false;
    if (left === undefined && !otherwise && likely >= 1 - DOUBT) return { ...pair, sure: true };
    const next = left ?? secondOf(chance[i]!, own?.line);
    const other = next === null ? null : lines[next]!.id;
    const why = left !== undefined ? 'beside' : otherwise ? 'exposure' : 'times';
    return { ...pair, sure: false, ...(own ? { doubt: { why, other } } : {}) };
  });
}

/** The likeliest line beside a file’s own, worth a thought; null: that it has none is likelier. */
function secondOf(of: ReadonlyMap<number, number>, own: number | undefined): number | null {
  let best: number | null = null;
  let most = Math.max(DOUBT, noneOf(of));
  for (const [line, likely] of of) {
    if (line === own || likely <= most) continue;
    [best, most] = [line, likely];
  }
  return best;
}

const alikeIn = (
  a: Pick<PictureFile, 'timeS' | 'iso'>,
  b: Pick<PictureFile, 'timeS' | 'iso'>,
): boolean =>
  [a.timeS, a.iso].every((value, n) => {
    const other = [b.timeS, b.iso][n] ?? null;
    return value === null || other === null || Math.abs(Math.log2(value / other)) < 0.3;
  });

/** Made this soon one after the other, which of two was logged cannot be told by the time, s. */
const TOO_SOON_S = 12;

/**
 * Files with another of the same settings right beside them, where one of the two is left without a
 * line; and those whose line has such a neighbour without a file, with that one. Which is which the
 * person says.
 */
function besideALeftOne(
  files: readonly PictureFile[],
  lines: readonly LogLine[],
  found: ReadonlyMap<number, { readonly line: number }>,
  taken: ReadonlySet<number>,
): Map<number, number | null> {
  const unsure = new Map<number, number | null>();
  const near = <T extends { clockS: number | null; timeS: number | null; iso: number | null }>(
    all: readonly T[],
    i: number,
  ): number[] =>
    [-3, -2, -1, 1, 2, 3]
      .map((step) => i + step)
      .filter((k) => {
        const [own, other] = [all[i]!, all[k]];
        if (!other || own.clockS === null || other.clockS === null) return false;
        return Math.abs(own.clockS - other.clockS) <= TOO_SOON_S && alikeIn(own, other);
      });
  files.forEach((_, i) => {
    const own = found.get(i);
    const leftFile = near(files, i).some((k) => found.has(k) !== (own !== undefined));
    const leftLine = own && near(lines, own.line).find((k) => !taken.has(k));
    if (leftFile || leftLine !== undefined) unsure.set(i, leftLine ?? null);
  });
  return unsure;
}

const noneOf = (of: ReadonlyMap<number, number>): number =>
  Math.max(0, 1 - [...of.values()].reduce((sum, each) => sum + each, 0));

function offsetOf(
  aligned: readonly Aligned[],
  weights: readonly number[],
  givenS: number | null,
): Offset {
  if (givenS !== null) return { kind: 'given', offsetS: givenS };
  const groups: { offsetS: number; weight: number }[] = [];
  const order = aligned.map(({ offsetS }, i) => ({ offsetS, weight: weights[i]! }));
  for (const { offsetS, weight } of order.sort((a, b) => b.weight - a.weight)) {
    if (offsetS === null) continue;
    const near = groups.find((each) => Math.abs(each.offsetS - offsetS) <= SAME_OFFSET_S);
    if (near) near.weight += weight;
    else groups.push({ offsetS, weight });
  }
  const likely = groups.sort((a, b) => b.weight - a.weight).filter(({ weight }) => weight > DOUBT);
  return likely[0] && likely[0].weight >= 1 - DOUBT
    ? { kind: 'found', offsetS: likely[0].offsetS }
    : { kind: 'undecided', offsetsS: likely.slice(0, 5).map(({ offsetS }) => offsetS) };
}

/** A line that several cameras claim goes to the likeliest, and is no longer sure. */
function shared(pairs: readonly Pair[]): Pair[] {
  const claims = new Map<string, Pair[]>();
  for (const pair of pairs) {
    if (pair.line !== null) claims.set(pair.line, [...(claims.get(pair.line) ?? []), pair]);
  }
  return pairs.map((pair) => {
    const rivals = pair.line === null ? [] : claims.get(pair.line)!;
    if (rivals.length < 2 || pair.by === 'hand') return pair;
    const [first] = [...rivals].sort(
      (a, b) => Number(b.by === 'hand') - Number(a.by === 'hand') || b.likely - a.likely,
    );
    return first === pair ? { ...pair, sure: false } : { ...pair, line: null, sure: false };
  });
}

/** What a matching may cost where nobody says: half a minute, away from the page. */
export const MATCH_STEPS = 3_000_000_000;

const unsure = (pair: Pair): Pair => ({ ...pair, sure: false });

/** Matches files to lines; what was fixed by hand stays, and the rest follows it. */
export function matchFiles(
  files: readonly PictureFile[],
  lines: readonly LogLine[],
  { fixed = [], offsetsS = {} }: MatchOptions = {},
  budget: Budget = newBudget(MATCH_STEPS),
): Matched {
  const effort = effortOf(budget);
  const byKey = new Map(fixed.map((each) => [each.file, each.line]));
  const taken = new Set(fixed.flatMap(({ line }) => (line === null ? [] : [line])));
  const lineById = new Map(lines.map((line) => [line.id, line]));
  const free = linesInOrder(lines.filter(({ id }) => !taken.has(id)));
  const cameras = [...new Set(files.map(({ camera }) => camera))].sort();
  const offsets: Record<string, Offset> = {};
  const pairs: Pair[] = [];
  for (const camera of cameras) {
    const own = inOrder(files.filter((file) => file.camera === camera));
    const byHand = own.filter(({ key }) => byKey.has(key));
    const anchors = byHand.flatMap((file) => {
      const line = lineById.get(byKey.get(file.key) ?? '');
      return line ? [{ file, line }] : [];
    });
    const found = matchCamera(
      {
        files: own.filter(({ key }) => !byKey.has(key)),
        lines: free,
        cameras: cameras.length,
        effort,
      },
      anchors,
      Object.hasOwn(offsetsS, camera) ? offsetsS[camera]! : null,
    );
    offsets[camera] = found.offset;
    pairs.push(
      ...byHand.map(({ key }): Pair => ({
        file: key,
        line: byKey.get(key) ?? null,
        sure: true,
        by: 'hand',
        likely: 1,
      })),
      ...found.pairs,
    );
  }
  budget.left = effort.left;
  const all = cameras.length > 1 ? shared(pairs) : pairs;
  return {
    pairs: effort.cut ? all.map((pair) => (pair.by === 'hand' ? pair : unsure(pair))) : all,
    offsets,
    stopped: effort.cut,
  };
}
