import type { Station } from '../document/station.js';
import { exposureReport } from '../exposure/report.js';
import { exposureVerdict } from '../exposure/verdict.js';
import type { Standing } from '../optical/state.js';
import { keptStation } from './kept.js';
import { readingOf } from './readings.js';
import { coverVerdict, focusVerdict } from './verdicts.js';

/** What a list shows of a station: worked out once, when it is saved. */
export interface StationDigest {
  readonly standing: Standing;
  /** The circle’s verdict: its figure, and the words beside it. */
  readonly figure: string;
  readonly words: string;
  /** Focus and time, in one line. */
  readonly rest: string;
}

function digestOf(station: Station): StationDigest {
  const reading = readingOf(station);
  const { standing, figure, words } = coverVerdict(station, reading);
  const focus = focusVerdict(station, reading);
  const { exposure } = station;
  const time = exposure ? exposureVerdict(station, exposureReport(station, exposure)) : null;
  return {
    standing,
    figure,
    words,
    rest: [
      `${focus.figure} ${focus.words}`,
      ...(time && time.standing !== null ? [`${time.figure}, ${time.words}`] : []),
    ].join(' · '),
  };
}

/** @returns null where nothing can be worked out from what is stored */
export function stationDigest(document: unknown): StationDigest | null {
  const kept = keptStation(document);
  if (kept.kind === 'broken') return null;
  try {
    return digestOf(kept.station);
  } catch {
    return null;
  }
}
