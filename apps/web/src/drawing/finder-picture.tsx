import { useMemo, type ReactNode } from 'react';
import type { CoverDrawing, Finder, Verdict } from '@gangway/station';
import { useAppSelector } from '../store/store.js';
import { STANDING_TEXT } from '../ui/standing.js';
import { Drawn } from './drawn.js';
import { FinderCanvas } from './finder-canvas.js';
import { frameBox } from './finder-sheet.js';
import { Overlays } from './overlays.js';
import type { Sheet } from './sheet.js';
import { useSize } from './use-size.js';

interface Props {
  drawing: CoverDrawing;
  finder: Finder;
  verdict: Verdict;
  /** What it is called, where more than one thing is drawn, and what more there is to say of it. */
  name?: string;
  also?: string;
  sheetOf: (drawing: CoverDrawing, width: number, height: number, groundGlass: boolean) => Sheet;
  over?: (sheet: Sheet, drawing: CoverDrawing) => ReactNode;
}

/** What the sensor gets, painted, with its frame in the tone of the verdict. */
export function FinderPicture({ drawing, finder, verdict, name, also, sheetOf, over }: Props) {
  const groundGlass = useAppSelector((state) => state.preferences.groundGlass);
  const [box, size] = useSize<HTMLDivElement>();
  const { width, height } = size;
  const sheet = useMemo(
    () => sheetOf(drawing, width, height, groundGlass),
    [sheetOf, drawing, width, height, groundGlass],
  );
  return (
    <Drawn
      {...{ box, size }}
      label={[name && `${name}.`, verdict.sentence, also].filter(Boolean).join(' ')}
      className="min-h-0 flex-1"
      under={<FinderCanvas {...{ finder, drawing, sheet, width, height }} />}
    >
      <rect
        {...frameBox(sheet, drawing.frame)}
        fill="none"
        stroke="currentColor"
        strokeWidth={2.5}
        className={STANDING_TEXT[verdict.standing]}
      />
      <Overlays {...{ drawing, finder, sheet, width, height }} />
      {over?.(sheet, drawing)}
    </Drawn>
  );
}
