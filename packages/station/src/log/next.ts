import type { FilmExposed, Loaded, Logged } from '../document/logged.js';
import type { Station } from '../document/station.js';
import { bracketsOf, framesOf, type Which } from './planned.js';

/** What is to be taken next, from what the log has of a station. */

export interface Progress {
  /** The exposure that comes next; null when all are taken. */
  readonly next: Which | null;
  readonly taken: number;
  readonly of: number;
}

/** Every exposure of a station in the order it is taken: bracket by bracket, frame by frame. */
export function exposuresOf(station: Station): Which[] {
  const [frames, brackets] = [framesOf(station), bracketsOf(station)];
  const each = (count: number): (number | null)[] =>
    count === 0 ? [null] : Array.from({ length: count }, (_, i) => i + 1);
  return each(frames).flatMap((frame) => each(brackets).map((bracket) => ({ frame, bracket })));
}

const keyOf = ({ frame, bracket }: Pick<Logged, 'frame' | 'bracket'>): string =>
  `${frame ?? ''} ${bracket ?? ''}`;

/** One marked as not kept is to be taken again. */
export const counts = ({ kept }: Pick<Logged, 'kept'>): boolean => kept !== false;

/** @param log this station’s own lines */
export function progressOf(station: Station, log: readonly Logged[]): Progress {
  const all = exposuresOf(station);
  const taken = new Set(log.filter(counts).map(keyOf));
  const has = ({ frame, bracket }: Which): boolean =>
    taken.has(keyOf({ frame: frame ?? undefined, bracket: bracket ?? undefined }));
  return {
    next: all.find((each) => !has(each)) ?? null,
    taken: all.filter(has).length,
    of: all.length,
  };
}

/** Film that is in a holder or on a roll, and how much of it is exposed. */
export interface LoadedState {
  readonly loaded: Loaded;
  readonly exposed: number;
  readonly frames: number | null;
  readonly full: boolean;
}

const isOn = (loaded: Loaded, film: FilmExposed | undefined): boolean =>
  film !== undefined &&
  (loaded.roll === undefined
    ? film.holder === loaded.holder && film.side === loaded.side
    : film.roll === loaded.roll);

export const loadedSaid = ({ holder, side, roll }: Omit<FilmExposed, 'frame'>): string =>
  roll === undefined ? `holder ${holder ?? ''}${side ? ` ${side}` : ''}` : `roll ${roll}`;

/** How all that is loaded stands. @param log every line of the job */
export function loadedStates(loaded: readonly Loaded[], log: readonly Logged[]): LoadedState[] {
  return loaded.map((each) => {
    const exposed = log.filter(({ film }) => isOn(each, film)).length;
    const frames = each.roll === undefined ? 1 : (each.frames ?? null);
    return { loaded: each, exposed, frames, full: frames !== null && exposed >= frames };
  });
}

/**
 * The film to expose next: the first loaded of the station’s own stock that is not full; null when
 * there is none.
 */
export function nextFilm(
  { exposure, back }: Station,
  loaded: readonly Loaded[],
  log: readonly Logged[],
): FilmExposed | null {
  if (back.medium !== 'film' && !exposure?.film) return null;
  const stock = exposure?.film?.name;
  const free = loadedStates(loaded, log).filter(({ full }) => !full);
  const found = free.find((each) => stock === undefined || each.loaded.stock === stock);
  if (!found) return null;
  const { holder, side, roll, stock: own } = found.loaded;
  return roll === undefined
    ? { stock: own, ...(holder === undefined ? {} : { holder }), ...(side ? { side } : {}) }
    : { stock: own, roll, frame: found.exposed + 1 };
}
