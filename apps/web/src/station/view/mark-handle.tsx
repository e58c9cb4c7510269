import type { Station } from '@gangway/station';
import { SiteHandle } from './site-handle.js';
import { cm } from './site-sheet.js';

type Axis = 'x_m' | 'y_m' | 'z_m';

/** A mark in a drawing of the site, dragged along the two axes the drawing shows. */
export function MarkHandle({
  mark,
  index,
  across,
  upward,
  x,
  y,
  ...shared
}: {
  mark: NonNullable<Station['marks']>[number];
  index: number;
  across: Axis;
  upward: Axis;
  x: number;
  y: number;
  scale: number;
  onHold: (held: boolean) => void;
  valueText: string;
}) {
  const name = mark.label || `Mark ${index + 1}`;
  return (
    <SiteHandle
      {...shared}
      label={upward === 'y_m' ? `${name}, from the side` : name}
      value={mark[upward]}
      write={(from, dx, dy) => ({
        ...from,
        marks: from.marks!.map((each, j) =>
          index === j
            ? { ...each, [across]: cm(each[across] + dx), [upward]: cm(each[upward] + dy) }
            : each,
        ),
      })}
    >
      <circle cx={x} cy={y} r={14} fill="transparent" />
      <path d={`M${x - 6},${y}h12m-6,-6v12`} className="stroke-ink" strokeWidth={2} />
    </SiteHandle>
  );
}
