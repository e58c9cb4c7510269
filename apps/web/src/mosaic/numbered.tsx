import { memo } from 'react';
import {
  fixed,
  withFrameAdded,
  withFrameMoved,
  withFrameTaken,
  type LaidFrame,
  type Point,
  leastOf,
} from '@gangway/station';
import { Handle } from '../drawing/handle.js';
import type { Sheet } from '../drawing/sheet.js';
import { useEditing } from '../store/editing.js';
import type { Stepping } from './stepping.js';

/** A place on the back, as it is read out. */
export const placeSaid = ({ x, y }: Point): string =>
  `${fixed(x, 1)} across, ${fixed(y, 1)} up, mm`;

interface NumberedProps {
  frame: LaidFrame;
  index: number;
  sheet: Sheet;
  small: boolean;
  /** All frames lie side by side: numbers stand above them, off the picture. */
  row: boolean;
  lit: boolean;
  held: boolean;
  stepping: Stepping;
}

/** The frame’s number; of free places a handle. */
export const Numbered = memo(function Numbered({
  frame,
  index,
  sheet,
  small,
  row,
  lit,
  held,
  stepping,
}: NumberedProps) {
  const { change } = useEditing();
  const top = leastOf(frame.corners.map((corner) => sheet.y(corner.y)));
  const [x, y] = [sheet.x(frame.centre.x), row ? top - 20 : sheet.y(frame.centre.y)];
  const here = stepping.at === index;
  const r = small ? 9 : 12;
  const disc = (
    <g transform={`translate(${x} ${y})`} className={lit ? '' : 'text-outside'}>
      {held && <circle r={22} fill="transparent" />}
      <circle
        r={r}
        className={
          here ? 'fill-ink stroke-ink' : lit ? 'fill-paper stroke-ink' : 'fill-paper stroke-outside'
        }
        strokeWidth={1.5}
      />
      <text
        y={4}
        textAnchor="middle"
        className={`figure ${small ? 'text-[10px]' : 'text-[12px]'} ${here ? 'fill-on-strong!' : ''}`}
      >
        {index + 1}
      </text>
    </g>
  );
  if (!held) return <g aria-hidden>{disc}</g>;
  const turned = Math.sign(sheet.scaleX);
  const take = (): void => {
    change(`Take frame ${index + 1} away`, '/mosaic/places', (now) => withFrameTaken(now, index));
  };
  const add = (): void => {
    change('Add a frame', '/mosaic/places', (now) => withFrameAdded(now, index));
  };
  const keys = { Delete: take, Backspace: take, Insert: add, '+': add };
  return (
    <Handle
      label={`Frame ${index + 1}`}
      what="place in two directions"
      pointer="/mosaic/places"
      value={frame.centre.x}
      valueText={placeSaid(frame.centre)}
      scale={sheet.scaleX}
      scaleUp={sheet.scaleY}
      step={0.5}
      write={(from, dx, dy) => withFrameMoved(from, index, dx, dy)}
      writeStep={(from, dx, dy) => withFrameMoved(from, index, turned * dx, turned * dy)}
      onFocus={() => stepping.show(index)}
      keys={keys}
    >
      {disc}
    </Handle>
  );
}, sameNumber);

/** Drawn again only where the frame itself, or what is looked at, has changed. */
function sameNumber(a: NumberedProps, b: NumberedProps): boolean {
  const still = (one: NumberedProps): readonly unknown[] => [
    one.frame.centre.x,
    one.frame.centre.y,
    one.frame.rotationDeg,
    one.index,
    one.sheet,
    one.small,
    one.row,
    one.lit,
    one.held,
    one.stepping.at === one.index,
    one.stepping.show,
  ];
  const last = still(b);
  return still(a).every((value, i) => value === last[i]);
}
