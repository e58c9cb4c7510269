import { circleVerdict, focusVerdict } from '../report/verdicts.js';
import type { Readings, Report } from '../report/report.js';
import type { Station } from '../document/station.js';

/** What is read of a station for its card: nothing that has to be searched for. */
export type Looked = Readings & Pick<Report, 'mosaic' | 'exposure'>;

/** What stands against a plan: until it is settled the card cannot be trusted. */
export interface Unsettled {
  readonly stops: readonly string[];
  readonly warnings: readonly string[];
}

const split = (problems: readonly { severity: 'stop' | 'warn'; message: string }[]): Unsettled => ({
  stops: problems.filter(({ severity }) => severity === 'stop').map(({ message }) => message),
  warnings: problems.filter(({ severity }) => severity === 'warn').map(({ message }) => message),
});

/** The rig’s, the circle’s, the frames’ and the exposure’s, in the order of the steps. */
export function unsettled(station: Station, report: Looked): Unsettled {
  const circle = station.held_off || station.mosaic ? null : circleVerdict(station, report);
  const focus = focusVerdict(station, report);
  const parts: Unsettled[] = [
    split(report.rig.problems),
    {
      stops: circle?.standing === 'outside' ? [circle.sentence] : [],
      warnings: circle?.standing === 'costs' ? [circle.sentence] : [],
    },
    {
      stops: [],
      warnings: focus.standing === 'costs' ? [focus.sentence] : [],
    },
    split(report.mosaic?.problems ?? []),
    split(report.exposure?.problems ?? []),
  ];
  return {
    stops: parts.flatMap(({ stops }) => stops),
    warnings: parts.flatMap(({ warnings }) => warnings),
  };
}

/** The step’s verdict: its largest figure, the words beside it, and all of it as one sentence. */
export interface CardVerdict {
  readonly standing: 'within' | 'costs' | 'outside';
  readonly figure: string;
  readonly words: string;
  readonly sentence: string;
}

export function cardVerdict({ stops, warnings }: Unsettled): CardVerdict {
  if (stops.length > 0) {
    return {
      standing: 'outside',
      figure: String(stops.length),
      words: 'to settle',
      sentence: `${stops.length === 1 ? 'One thing is' : `${stops.length} things are`} to be settled: ${stops[0]!}`,
    };
  }
  const count = warnings.length;
  return {
    standing: 'within',
    figure: 'Ready',
    words: count === 0 ? 'to shoot from' : `${count} ${count === 1 ? 'warning' : 'warnings'}`,
    sentence: count === 0 ? 'The card is ready.' : `The card is ready. ${warnings[0]!}`,
  };
}
