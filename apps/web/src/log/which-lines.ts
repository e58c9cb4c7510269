import { doneOtherwise, isDoubtful, type Logged, type Station, type Units } from '@gangway/station';

/** Which lines of the log are looked at. */

export const WHICH = {
  all: 'all lines',
  changed: 'changed from the plan',
  spoilt: 'spoilt',
  alone: 'without a file',
  unsure: 'with an unsure file',
} as const;
export type WhichLines = keyof typeof WHICH;

/** Lines of one station or of all, of one sort or of all. */
export function linesShown(
  lines: readonly Logged[],
  { which, station }: { which: WhichLines; station: string | null },
  stations: ReadonlyMap<string, Station>,
  units: Units,
): readonly Logged[] {
  const isChanged = (line: Logged): boolean => {
    const own = line.station === undefined ? undefined : stations.get(line.station);
    return doneOtherwise(own, line, units).length > 0;
  };
  const tests: Readonly<Record<WhichLines, (line: Logged) => boolean>> = {
    all: () => true,
    changed: isChanged,
    spoilt: ({ kept }) => kept === false,
    // What was exposed on film has none.
    alone: ({ file, film }) => file === undefined && film === undefined,
    unsure: isDoubtful,
  };
  if (which === 'all' && station === null) return lines;
  return lines.filter((line) => (station === null || line.station === station) && tests[which](line)); // prettier-ignore
}
