import { useMemo } from 'react';
import { coverDrawing, finderOf, type School } from '@gangway/station';
import { Drawn } from '../drawing/drawn.js';
import { Edge } from '../drawing/edge.js';
import { FinderCanvas } from '../drawing/finder-canvas.js';
import { frameBox, pathOf } from '../drawing/finder-sheet.js';
import { useSize } from '../drawing/use-size.js';
import { laidOf, type Laid } from '../store/mosaic.js';
import { layoutSheet } from './layout-sheet.js';
import { TurnDrawing } from './turn-drawing.js';

const LOOK_ON = { at: null, show: () => undefined, step: () => undefined };

/** One school's layout, drawn by itself. */
export function MiniLayout({
  title,
  school,
  none,
  best,
}: {
  title: string;
  school: School | null;
  none: string | null;
  best: boolean;
}) {
  return (
    <figure className="relative flex min-h-56 min-w-0 flex-1 flex-col">
      <figcaption className="px-5 pt-2 font-semibold">
        {title}
        {best && <span className="ml-2 font-normal text-within">serves</span>}
      </figcaption>
      {school ? (
        <Drawing school={school} />
      ) : (
        <p className="max-w-[52ch] px-5 py-4 text-quiet">{none}</p>
      )}
    </figure>
  );
}

function Drawing({ school: { after } }: { school: School }) {
  const laid = laidOf(after)!;
  return laid.layout.turn ? (
    <TurnDrawing laid={laid} stepping={LOOK_ON} />
  ) : (
    <Shifted laid={laid} />
  );
}

function Shifted({ laid }: { laid: Laid }) {
  const { station, layout, picture } = laid;
  const [box, size] = useSize<HTMLDivElement>();
  const drawing = useMemo(() => coverDrawing(station), [station]);
  const finder = useMemo(() => finderOf(station), [station]);
  const sheet = useMemo(
    () => layoutSheet(laid, drawing, size, false, false),
    [laid, drawing, size],
  );
  return (
    <Drawn
      {...{ box, size }}
      label={`${layout.frames.length} frames shifted through the circle`}
      className="min-h-0 flex-1"
      under={
        <FinderCanvas
          {...{ finder, sheet }}
          drawing={picture ? { ...drawing, frame: picture } : drawing}
          {...size}
        />
      }
    >
      <Edge
        {...{ drawing, sheet }}
        of="circle"
        fill="none"
        className="stroke-ink"
        strokeWidth={1.5}
      />
      {layout.frames.map(({ corners }, i) => (
        <path key={i} d={pathOf(sheet, corners)} fill="none" className="stroke-quiet" />
      ))}
      {picture && (
        <rect
          {...frameBox(sheet, picture)}
          fill="none"
          className="stroke-within"
          strokeWidth={2.5}
        />
      )}
    </Drawn>
  );
}
