import { selectOpen } from '../store/selectors.js';
import { changed, previewed } from '../store/station.js';
import { useAppDispatch, useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { TRIED } from './way-list.js';

/** Says that the drawing shows a change that is not taken yet. */
export function PreviewBanner() {
  const preview = useAppSelector((state) => selectOpen(state).preview);
  const dispatch = useAppDispatch();
  if (!preview) return null;
  return (
    <div
      role="status"
      className="absolute top-3 right-5 left-40 ml-auto flex w-fit items-center gap-3 border border-rule-strong bg-paper py-1 pr-1 pl-3"
    >
      <span>
        <span className="text-quiet">Looking at:</span> {preview.title}
      </span>
      <Button
        look="strong"
        onClick={() =>
          dispatch(changed({ station: preview.station, label: `${TRIED}${preview.title}` }))
        }
      >
        Take it
      </Button>
      <Button onClick={() => dispatch(previewed(null))}>Back</Button>
    </div>
  );
}
