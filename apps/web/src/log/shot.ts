import {
  counts,
  exposuresOf,
  leastOf,
  nextFilm,
  planFor,
  plannedFor,
  progressOf,
  type Logged,
  type LogChange,
  type Station,
  type Which,
  mostOf,
} from '@gangway/station';
import { newId } from '../browser/new-id.js';
import type { OpenLog } from '../records/log-lines.js';
import { linesOf } from '../records/log-lines.js';
import { momentNow } from './now.js';

/** What one tap at the camera puts into the log. */

export interface Shot {
  readonly stationId: string;
  readonly station: Station;
  readonly log: OpenLog;
  readonly which: Which;
  /** What was set otherwise than planned. */
  readonly set: Partial<Logged>;
  readonly note: string;
  readonly atMs: number;
  /** The station’s revision that it is shot by. */
  readonly revision: number | null;
}

/** What says nothing of how the exposure was set. */
const BESIDE = new Set(['kept', 'film']);

/** A time that was changed is that of the one at hand; the others of its bracket go with it. */
function timeOfBracket({ station, which: present, set }: Shot, which: Which): Partial<Logged> {
  const [planned, own] = [plannedFor(station, present).time_s, plannedFor(station, which).time_s];
  if (set.time_s === undefined || planned === undefined || own === undefined) return {};
  return { time_s: (set.time_s / planned) * own };
}

/** @param before every line of the job that is there already: they tell what film is left */
function shotLine(shot: Shot, which: Which, before: readonly Logged[]): Logged {
  const { stationId, station, log, set, note, atMs, revision } = shot;
  const film = nextFilm(station, log.films, before);
  return {
    id: newId(),
    station: stationId,
    at: momentNow(atMs),
    planned: Object.keys(set).every((name) => BESIDE.has(name)),
    ...plannedFor(station, which),
    plan: planFor(station, which, revision),
    ...(film ? { film } : {}),
    ...set,
    ...timeOfBracket(shot, which),
    ...(note === '' ? {} : { note }),
  };
}

/** One exposure, or with `whole` all that are left of its bracket: a camera that brackets by itself. */
export function shotChanges(shot: Shot, whole: boolean): LogChange[] {
  const { station, which, log } = shot;
  const own =
    whole && which.bracket !== null
      ? exposuresOf(station).filter(
          ({ frame, bracket }) => frame === which.frame && bracket! >= which.bracket!,
        )
      : [which];
  const lines = [...linesOf(log)];
  return own.map((each) => {
    const line = shotLine(shot, each, lines);
    lines.push(line);
    return { id: line.id, add: line };
  });
}

/** Lines of one station. */
export const ownLines = (log: OpenLog, stationId: string): Logged[] =>
  linesOf(log).filter(({ station }) => station === stationId);

/** What comes next; when all are taken, the last of them once more. */
export function nextOf(log: OpenLog, stationId: string, station: Station) {
  const progress = progressOf(station, ownLines(log, stationId));
  const all = exposuresOf(station);
  return { ...progress, which: progress.next ?? all.at(-1)! };
}

/**
 * The exposure that the step on the screen is of: its own frame, whatever was taken before; of a
 * bracket the first that this frame still wants, and all over again where none is left.
 * @param frame counted from 0; null where the station has only the one
 */
export function shownWhich(
  log: OpenLog,
  stationId: string,
  station: Station,
  frame: number | null,
): Which {
  const all = exposuresOf(station).filter(
    (each) => each.frame === (frame === null ? null : frame + 1),
  );
  if (all.length === 0) return nextOf(log, stationId, station).which;
  if (all.length === 1) return all[0]!;
  const own = ownLines(log, stationId).filter(counts);
  const times = all.map(
    ({ frame: of, bracket }) =>
      own.filter((line) => (line.frame ?? null) === of && (line.bracket ?? null) === bracket)
        .length,
  );
  // A round through the bracket is finished before the next begins.
  const least = leastOf(times);
  return all[times.indexOf(least)]!;
}

/** Frame 2 of 3, bracket 1 of 3. */
export function whichSaid(station: Station, { frame, bracket }: Which): string {
  const all = exposuresOf(station);
  const frames = mostOf(all.map((each) => each.frame ?? 0));
  const brackets = mostOf(all.map((each) => each.bracket ?? 0));
  return [
    frame === null ? '' : `frame ${frame} of ${frames}`,
    bracket === null ? '' : `bracket ${bracket} of ${brackets}`,
  ]
    .filter(Boolean)
    .join(', ');
}
