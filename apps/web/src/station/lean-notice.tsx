import { leanReadAnew } from '@gangway/station';
import { selectOpen } from '../store/selectors.js';
import { changed } from '../store/station.js';
import { useAppDispatch, useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';

/** A station with a leaned back, last saved before backs leaned about their own middle. */
export function LeanNotice() {
  const dispatch = useAppDispatch();
  const station = useAppSelector((state) => selectOpen(state).present);
  if (!leanReadAnew(station)) return null;
  return (
    <p
      role="status"
      className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule border-l-4 border-l-costs bg-paper px-5 py-1.5"
    >
      <span>
        The back is leaned here and is read anew: it turns about its own middle. Frame, margin and
        focus differ from before; what is set has not changed.
      </span>
      <Button onClick={() => dispatch(changed({ station, label: 'Check the leaned back' }))}>
        Checked
      </Button>
    </p>
  );
}
