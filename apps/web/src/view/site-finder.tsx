import { groundGlassFlipped } from '../store/preferences.js';
import {
  selectFinder,
  selectShownDrawing,
  selectShownReport,
  selectShownVerdict,
} from '../store/selectors.js';
import { useAppDispatch, useAppSelector } from '../store/store.js';
import { STANDING_TEXT } from '../ui/standing.js';
import { FinderPicture } from '../drawing/finder-picture.js';
import { makeSheet } from '../drawing/finder-sheet.js';

/** What the sensor gets, small beside the drawings of the site. */
export function SiteFinder() {
  const drawing = useAppSelector(selectShownDrawing);
  const finder = useAppSelector(selectFinder);
  const verdict = useAppSelector(selectShownVerdict);
  const { facade } = useAppSelector(selectShownReport);
  const groundGlass = useAppSelector((state) => state.preferences.groundGlass);
  const dispatch = useAppDispatch();
  return (
    <figure className="flex min-h-72 flex-1 flex-col lg:min-h-0">
      <FinderPicture
        {...{ drawing, finder, verdict }}
        name="Finder"
        also={facade?.framed ? 'The whole façade is in the picture.' : undefined}
        sheetOf={makeSheet}
      />
      <figcaption className="flex items-center justify-between gap-3 px-4 pb-1 text-[13px]">
        <span className={STANDING_TEXT[verdict.standing]}>
          <span className="figure">{verdict.figure}</span> {verdict.words}
        </span>
        <button
          type="button"
          aria-pressed={groundGlass}
          onClick={() => dispatch(groundGlassFlipped())}
          className="min-h-9 text-quiet hover:text-ink pointer-coarse:min-h-11"
        >
          {groundGlass ? 'As on the ground glass' : 'As the picture stands'}{' '}
          <span className="text-faint pointer-coarse:hidden">F</span>
        </button>
      </figcaption>
    </figure>
  );
}
