import type { Candidate } from './match-align.js';
import { SPREAD_S, type Sequence } from './match-likelihood.js';
import type { LogLine, PictureFile } from './match-types.js';

/** Clock offsets that are worth a look: where many files would lie near a line of the log. */

/** Clocks that were set are off by up to a day and a little; those that never were, by years. s */
const SET_WITHIN_S = 26 * 3600;
const YEARS_S = 2e9;
/** What falls within this of an offset speaks for it, s. */
const NEAR_S = 6;
/** Peaks nearer than this are one. */
const APART_S = 2.5;
const MOST = 32;
const MOST_LOOKED_AT = 300;
/** One that explains so many pairs fewer than the best is out of the question. */
const BEHIND = 4;
/** Differences that are looked through; beyond, files are thinned out evenly. */
const MOST_DIFFERENCES = 300_000;

/** A given offset is known to about this, s. */
const GIVEN_S = 5;

function differences({ files, lines }: Sequence): Float64Array {
  const timed = files.flatMap(({ clockS }) => (clockS === null ? [] : [clockS]));
  const every = Math.max(1, Math.ceil((timed.length * lines.length) / MOST_DIFFERENCES));
  const found: number[] = [];
  for (let i = 0; i < timed.length; i += every) {
    for (const { clockS } of lines) {
      found.push(timed[i]! - clockS);
    }
  }
  return Float64Array.from(found).sort();
}

/** Each difference with how many others lie near it. */
function peaksOf(sorted: Float64Array): number[] {
  const votes = new Float64Array(sorted.length);
  for (let i = 0, low = 0, high = 0; i < sorted.length; i++) {
    const at = sorted[i]!;
    while (sorted[low]! < at - NEAR_S) low++;
    while (high < sorted.length && sorted[high]! <= at + NEAR_S) high++;
    votes[i] = high - low;
  }
  const order = Array.from(votes.keys()).sort((a, b) => votes[b]! - votes[a]! || a - b);
  const peaks: number[] = [];
  for (const i of order) {
    if (peaks.length >= MOST_LOOKED_AT) break;
    const at = sorted[i]!;
    if (peaks.every((peak) => Math.abs(peak - at) > APART_S)) peaks.push(at);
  }
  return peaks;
}

/** How many files find a line of their own near them, in order. */
function paired(fileS: readonly number[], lineS: readonly number[], offsetS: number): number {
  let [count, j] = [0, 0];
  for (const at of fileS) {
    while (j < lineS.length && lineS[j]! < at - offsetS - NEAR_S) j++;
    if (j < lineS.length && lineS[j]! <= at - offsetS + NEAR_S) {
      count++;
      j++;
    }
  }
  return count;
}

/** The peaks that explain the most. */
function best({ files, lines }: Sequence, peaks: readonly number[]): number[] {
  const fileS = files.flatMap(({ clockS }) => (clockS === null ? [] : [clockS]));
  const lineS = lines.map(({ clockS }) => clockS);
  const counted = peaks.map((peak) => ({ peak, count: paired(fileS, lineS, peak) }));
  counted.sort((a, b) => b.count - a.count);
  const most = counted[0]?.count ?? 0;
  return counted
    .filter(({ count }) => count >= most - BEHIND)
    .slice(0, MOST)
    .map(({ peak }) => peak);
}

/** Offsets to try, with how wide the prior of each is; the last is that nothing belongs together. */
export function offsetCandidates(
  sequence: Sequence,
  fixed: readonly { readonly file: PictureFile; readonly line: LogLine }[],
  givenS: number | null,
): Candidate[] {
  const none: Candidate = { offsetS: 0, priorWidthS: null };
  if (givenS !== null) {
    return [{ offsetS: givenS, priorWidthS: GIVEN_S, heldToS: GIVEN_S }, none];
  }
  const anchors = fixed.flatMap(({ file, line }) =>
    file.clockS === null ? [] : [file.clockS - line.clockS],
  );
  if (anchors.length > 0) {
    // Each that was set by hand tells where the clock stood then; together they tell it best.
    const middle = [...anchors].sort((a, b) => a - b)[anchors.length >> 1]!;
    return [{ offsetS: middle, priorWidthS: SPREAD_S, heldToS: 3 * SPREAD_S }, none];
  }
  const peaks = best(sequence, peaksOf(differences(sequence)));
  if (peaks.length === 0) return [{ offsetS: 0, priorWidthS: 2 * SET_WITHIN_S }, none];
  const widthAt = (offsetS: number): number =>
    2 * (Math.abs(offsetS) <= SET_WITHIN_S ? SET_WITHIN_S : YEARS_S);
  return [...peaks.map((offsetS) => ({ offsetS, priorWidthS: widthAt(offsetS) })), none];
}
