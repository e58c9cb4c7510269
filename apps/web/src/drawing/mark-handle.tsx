import { withMark, type Station } from '@gangway/station';
import { Handle } from './handle.js';
import { keyStepM, tenthMm } from './site-sheet.js';

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
    <Handle
      {...shared}
      label={upward === 'y_m' ? `${name}, from the side` : name}
      value={mark[upward]}
      step={keyStepM(Math.hypot(mark.x_m, mark.z_m))}
      write={(from, dx, dy) => {
        const each = from.marks![index]!;
        return withMark(from, index, {
          [across]: tenthMm(each[across] + dx),
          [upward]: tenthMm(each[upward] + dy),
        });
      }}
    >
      <circle cx={x} cy={y} r={14} fill="transparent" />
      <path d={`M${x - 6},${y}h12m-6,-6v12`} className="stroke-ink" strokeWidth={2} />
    </Handle>
  );
}
