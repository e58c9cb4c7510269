import { useMemo } from 'react';
import { coverDrawing } from '@gangway/station';
import { Drawn } from '../drawing/drawn.js';
import { CircleAndCore } from '../drawing/edge.js';
import { FinderCanvas } from '../drawing/finder-canvas.js';
import { frameBox, makeSheet } from '../drawing/finder-sheet.js';
import { useSize } from '../drawing/use-size.js';
import { PreviewBanner } from '../station/preview-banner.js';
import { selectFinder, selectShown } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';

/** One frame in its circle: all that could be seen beside it lies round it. */
export function ShiftDrawingEmpty() {
  const shown = useAppSelector(selectShown);
  const finder = useAppSelector(selectFinder);
  const { groundGlass } = useAppSelector((state) => state.preferences);
  const [box, size] = useSize<HTMLDivElement>();
  const drawing = useMemo(() => coverDrawing(shown), [shown]);
  const sheet = useMemo(
    () => makeSheet(drawing, size.width, size.height, groundGlass),
    [drawing, size.width, size.height, groundGlass],
  );
  return (
    <div className="relative flex min-h-0 flex-1 flex-col contain-content">
      <Drawn
        {...{ box, size }}
        label="One frame in the image circle; no mosaic is laid out"
        className="min-h-[min(96vw,26rem)] flex-1 lg:min-h-0"
        under={<FinderCanvas {...{ finder, drawing, sheet }} {...size} />}
      >
        <CircleAndCore {...{ drawing, sheet }} />
        <rect
          {...frameBox(sheet, drawing.frame)}
          fill="none"
          className="stroke-ink"
          strokeWidth={2}
        />
      </Drawn>
      <PreviewBanner />
    </div>
  );
}
