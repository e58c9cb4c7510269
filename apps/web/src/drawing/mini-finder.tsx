import { useMemo, type ReactNode } from 'react';
import {
  coverDrawing,
  coverVerdict,
  finderOf,
  readingOf,
  type CoverDrawing,
  type Station,
} from '@gangway/station';
import { useAppSelector } from '../store/store.js';
import { FinderPicture } from './finder-picture.js';
import { sheetAt, type Sheet } from './sheet.js';

const ROOM = 1.14;

/** A sheet filled by the frame, with a little of what lies round it. */
export function frameSheet(
  { frame }: CoverDrawing,
  width: number,
  height: number,
  flip: boolean,
): Sheet {
  const pxPerMm = Math.max(
    0.01,
    Math.min(width / (frame.widthMm * ROOM), height / (frame.heightMm * ROOM)),
  );
  const scale = flip ? -pxPerMm : pxPerMm;
  const { x, y } = frame.centre;
  return sheetAt(width / 2 - x * scale, height / 2 + y * scale, scale);
}

/** The finder of one station by itself, for laying several side by side. */
export function MiniFinder({
  station,
  title,
  children,
  over,
}: {
  station: Station;
  title: ReactNode;
  children?: ReactNode;
  /** Drawn over the picture. */
  over?: (sheet: Sheet, drawing: CoverDrawing) => ReactNode;
}) {
  const drawing = useMemo(() => coverDrawing(station), [station]);
  const finder = useMemo(() => finderOf(station), [station]);
  const units = useAppSelector((state) => state.preferences.units);
  const verdict = useMemo(() => coverVerdict(station, readingOf(station), units), [station, units]);
  return (
    <figure className="flex min-h-64 min-w-0 flex-1 flex-col">
      <figcaption className="px-4 pt-3 font-semibold">{title}</figcaption>
      <FinderPicture {...{ drawing, finder, verdict, over }} sheetOf={frameSheet} />
      <div className="min-h-14 px-4 pt-1 pb-3">{children}</div>
    </figure>
  );
}
