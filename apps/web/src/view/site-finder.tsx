import { useMemo } from 'react';
import { groundGlassFlipped } from '../store/preferences.js';
import {
  selectFinder,
  selectShownDrawing,
  selectShownReport,
  selectShownVerdict,
} from '../store/selectors.js';
import { useAppDispatch, useAppSelector } from '../store/store.js';
import { STANDING_TEXT } from '../ui/standing.js';
import { useSize } from '../drawing/use-size.js';
import { FinderCanvas } from '../drawing/finder-canvas.js';
import { Overlays } from '../drawing/overlays.js';
import { frameBox, makeSheet } from '../drawing/finder-sheet.js';

/** What the sensor gets, small beside the drawings of the site. */
export function SiteFinder() {
  const drawing = useAppSelector(selectShownDrawing);
  const finder = useAppSelector(selectFinder);
  const verdict = useAppSelector(selectShownVerdict);
  const { facade } = useAppSelector(selectShownReport);
  const groundGlass = useAppSelector((state) => state.preferences.groundGlass);
  const dispatch = useAppDispatch();
  const [box, { width, height }] = useSize<HTMLDivElement>();
  const sheet = useMemo(
    () => makeSheet(drawing, width, height, groundGlass),
    [drawing, width, height, groundGlass],
  );
  return (
    <figure className="flex min-h-72 flex-1 flex-col lg:min-h-0">
      <div ref={box} className="relative min-h-0 flex-1 overflow-hidden">
        {width > 0 && (
          <>
            <FinderCanvas {...{ finder, drawing, sheet, width, height }} />
            <svg
              width={width}
              height={height}
              role="img"
              aria-label={`Finder. ${verdict.sentence}${facade?.framed ? ' The whole façade is in the picture.' : ''}`}
              className="absolute inset-0 text-[12px]"
            >
              <g className={STANDING_TEXT[verdict.standing]}>
                <rect
                  {...frameBox(sheet, drawing.frame)}
                  fill="none"
                  stroke="currentColor"
                  strokeWidth={2.5}
                />
              </g>
              <Overlays {...{ drawing, finder, sheet, width, height }} />
            </svg>
          </>
        )}
      </div>
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
