import { lazy, Suspense, useMemo } from 'react';
import { waysOut, type State, type Station } from '@gangway/station';
import { selectOpen } from '../store/selectors.js';
import { undone } from '../store/station.js';
import { useAppDispatch, useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { Group } from '../station/results.js';
import { TRIED, WayList } from '../station/way-list.js';

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
  const dispatch = useAppDispatch();
  const framing = station.facade !== undefined;
  const last = useAppSelector((root) => selectOpen(root).past.at(-1)?.label ?? '');
  const ways = useMemo(() => waysOut(station), [station]);
  const tried = last.startsWith(TRIED) ? last.slice(TRIED.length) : null;
  return (
    <>
      {tried !== null && (
        <Group title="Tried">
          <div className="flex items-center justify-between gap-3 border-t border-rule py-2">
            <span className="font-medium">{tried}</span>
            <Button onClick={() => dispatch(undone())} aria-label={`Undo: ${tried}`}>
              Undo
            </Button>
          </div>
        </Group>
      )}
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
