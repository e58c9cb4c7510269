import { Group } from './results.js';
import { TRIED } from './way-list.js';
import { selectOpen } from '../store/selectors.js';
import { undone } from '../store/station.js';
import { useAppDispatch, useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';

/** What was tried last, and the way back from it. */
export function Tried() {
  const dispatch = useAppDispatch();
  const last = useAppSelector((root) => selectOpen(root).past.at(-1)?.label ?? '');
  if (!last.startsWith(TRIED)) return null;
  const tried = last.slice(TRIED.length);
  return (
    <Group title="Tried">
      <div className="flex items-center justify-between gap-3 border-t border-rule py-2">
        <span className="font-medium">{tried}</span>
        <Button onClick={() => dispatch(undone())} aria-label={`Undo: ${tried}`}>
          Undo
        </Button>
      </div>
    </Group>
  );
}
