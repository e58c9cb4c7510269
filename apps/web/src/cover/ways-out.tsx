import { lazy, Suspense, useMemo } from 'react';
import { waysOut, type State, type Station } from '@gangway/station';
import { Group } from '../station/results.js';
import { Tried } from '../station/tried.js';
import { WayList } from '../station/way-list.js';

const TITLES: Record<Exclude<State, 'sharp'>, string> = {
  beyond: 'Ways back inside the mechanism',
  outside: 'Ways out of the dark corner',
  ring: 'Ways past the filter ring',
  soft: 'Ways out of the soft corner',
};

// Framing is searched for in a worker, and only where there is a façade.
const FramingWays = lazy(() => import('./framing-ways.js'));

/** Concrete changes that would cure what is wrong, best first; one press tries, one undoes. */
export function WaysOut({ station, state }: { station: Station; state: State }) {
  const framing = station.facade !== undefined;
  const ways = useMemo(() => waysOut(station), [station]);
  return (
    <>
      <Tried />
      {framing && (
        <Suspense>
          <FramingWays />
        </Suspense>
      )}
      {state !== 'sharp' && (
        <Group title={TITLES[state]}>
          {ways.length === 0 && (
            <p className="border-t border-rule py-2">
              No single change cures this. Zero the movements one by one, or use a lens with a
              larger circle.
            </p>
          )}
          <WayList ways={ways} />
        </Group>
      )}
    </>
  );
}
