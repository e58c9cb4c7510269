import {
  cardStanding,
  coverVerdict,
  focusVerdict,
  keptStation,
  readings,
  type Station,
} from '@gangway/station';
import type { Holding } from './read-files.js';

/** A verdict a line for each station. */

interface Line {
  readonly text: string;
  readonly good: boolean;
}

const LABELS = { good: 'good', fails: 'FAILS' } as const;

function stationLine(station: Station): Line {
  const looked = readings(station);
  const parts = [
    ['cover', coverVerdict(station, looked)],
    ['focus', focusVerdict(station, looked)],
    ['card', cardStanding(station)],
  ] as const;
  const failing = parts.filter(([, { standing }]) => standing === 'outside');
  const shown = failing.length > 0 ? failing : parts.slice(0, 2);
  const said = shown.map(([name, { figure, words }]) => `${name} ${figure} ${words}`).join('; ');
  const good = failing.length === 0;
  return { good, text: `${LABELS[good ? 'good' : 'fails']}\t${station.name}\t${said}` };
}

/** A station whose fields break a rule is told by its first fault. */
function keptLine(document: Station): Line {
  const kept = keptStation(document);
  if (kept.kind === 'broken') {
    const [fault] = kept.faults;
    return {
      good: false,
      text: `${LABELS.fails}\t${kept.name}\t${fault?.pointer ?? ''} ${fault?.message ?? ''}`,
    };
  }
  return stationLine(kept.station);
}

export const checkLines = (found: Holding): Line[] =>
  found.kind === 'station'
    ? [keptLine(found.station)]
    : found.job.stations
        .filter(({ archived }) => !archived)
        .map(({ document }) => keptLine(document));
