import type { Station } from '@gangway/station';
import { selectOpen } from '../store/selectors.js';
import { changed, previewed } from '../store/station.js';
import { useAppDispatch, useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';

/** Marks a step of undo as a way out that was tried. */
export const TRIED = 'Try: ';

export interface Way {
  readonly id: string;
  readonly title: string;
  readonly detail: string;
  readonly after: Station;
}

/** Ways to take: the words show each in the finder first, the button takes it. */
export function WayList({ ways }: { ways: readonly Way[] }) {
  const dispatch = useAppDispatch();
  const looking = useAppSelector((root) => selectOpen(root).preview?.id ?? null);
  return (
    <ul>
      {ways.map((way) => (
        <li
          key={way.id}
          className="flex items-center justify-between gap-3 border-t border-rule py-1.5"
        >
          <button
            type="button"
            aria-pressed={looking === way.id}
            aria-label={`Look at: ${way.title}. ${way.detail}`}
            onClick={() =>
              dispatch(
                previewed(
                  looking === way.id ? null : { id: way.id, title: way.title, station: way.after },
                ),
              )
            }
            className="min-w-0 text-left hover:underline aria-pressed:underline decoration-1 underline-offset-3"
          >
            <span className="block font-medium">{way.title}</span>
            <span className="block text-[13px] text-quiet">{way.detail}</span>
          </button>
          <Button
            onClick={() => dispatch(changed({ station: way.after, label: `${TRIED}${way.title}` }))}
            aria-label={`Try: ${way.title}`}
          >
            Try
          </Button>
        </li>
      ))}
    </ul>
  );
}
