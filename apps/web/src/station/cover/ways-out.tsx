import { useDeferredValue } from 'react';
import type { State, WayOut } from '@gangway/station';
import { selectCoverVerdict, selectOpen, selectWaysOut } from '../../store/selectors.js';
import { changed, undone } from '../../store/station.js';
import { useAppDispatch, useAppSelector } from '../../store/store.js';
import { Button } from '../../ui/button.js';
import { Group } from '../results.js';

/** Marks a step of undo as a way out that was tried. */
const TRIED = 'Try: ';

const TITLES: Record<Exclude<State, 'sharp'>, string> = {
  beyond: 'Ways back inside the mechanism',
  outside: 'Ways out of the dark corner',
  ring: 'Ways past the filter ring',
  soft: 'Ways out of the soft corner',
};

/** Concrete changes that would cure what is wrong, best first; one press tries, one undoes. */
export function WaysOut() {
  const dispatch = useAppDispatch();
  const { state } = useAppSelector(selectCoverVerdict);
  const last = useAppSelector((root) => selectOpen(root).past.at(-1)?.label ?? '');
  // While a scale is dragged the list may lag a frame or two behind the drawing.
  const ways = useDeferredValue(useAppSelector(selectWaysOut));
  const tried = last.startsWith(TRIED) ? last.slice(TRIED.length) : null;
  const take = (way: WayOut): void => {
    dispatch(changed({ station: way.after, label: `${TRIED}${way.title}` }));
  };
  if (state === 'sharp' && tried === null) return null;
  return (
    <Group title={state === 'sharp' ? 'Tried' : TITLES[state]}>
      {tried !== null && (
        <div className="flex items-center justify-between gap-3 border-t border-rule py-2">
          <span className="font-medium">{tried}</span>
          <Button onClick={() => dispatch(undone())} aria-label={`Undo: ${tried}`}>
            Undo
          </Button>
        </div>
      )}
      {state !== 'sharp' && ways.length === 0 && (
        <p className="border-t border-rule py-2">
          No single change cures this. Zero the movements one by one, or use a lens with a larger
          circle.
        </p>
      )}
      <ul>
        {state !== 'sharp' &&
          ways.map((way) => (
            <li
              key={way.id}
              className="flex items-center justify-between gap-3 border-t border-rule py-1.5"
            >
              <span className="min-w-0">
                <span className="block font-medium">{way.title}</span>
                <span className="block text-[13px] text-quiet">{way.detail}</span>
              </span>
              <Button onClick={() => take(way)} aria-label={`Try: ${way.title}`}>
                Try
              </Button>
            </li>
          ))}
      </ul>
    </Group>
  );
}
