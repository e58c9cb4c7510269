import { useGesture } from '@use-gesture/react';
import { useCallback, useState, type RefObject } from 'react';
import { useSteady } from './drag.js';
import { zoomedAt, type Seen } from './zoomed.js';

export interface PanZoom {
  readonly seen: Seen;
  readonly look: (seen: Seen) => void;
  /** Closer about the middle; below 1 farther. */
  readonly zoom: (by: number) => void;
  /** CSS pixels to the right and up. */
  readonly pan: (x: number, y: number) => void;
}

interface Room {
  readonly width: number;
  readonly height: number;
}

const WHEEL = 0.0016;

/**
 * Drag, wheel, pinch and keys over something that is looked at closely.
 * @param fit what is seen until somebody looks elsewhere
 * @param range least and most scale
 */
export function usePanZoom(
  target: RefObject<HTMLElement | null>,
  room: Room,
  fit: Seen,
  range: readonly [number, number],
  held?: { readonly seen: Seen | null; readonly put: (seen: Seen) => void },
): PanZoom {
  const [own, setOwn] = useState<Seen | null>(null);
  const seen = (held ? held.seen : own) ?? fit;
  const look = held ? held.put : setOwn;
  const move = useSteady((to: Seen) => look(to));
  const handAt = ([x, y]: readonly number[]): { x: number; y: number } => {
    const box = target.current!.getBoundingClientRect();
    return { x: x! - box.left - room.width / 2, y: box.top + room.height / 2 - y! };
  };
  useGesture(
    {
      onDrag: ({ delta: [dx, dy], pinching, cancel }) => {
        if (pinching) return cancel();
        return move({ ...seen, x: seen.x - dx / seen.scale, y: seen.y + dy / seen.scale });
      },
      onWheel: ({ event, delta: [, dy] }) => {
        event.preventDefault();
        move(zoomedAt(seen, Math.exp(-WHEEL * dy), handAt([event.clientX, event.clientY]), range));
      },
      onPinch: ({ origin, delta: [by], offset: [now], first, memo }) => {
        const before = first ? now - by : (memo as number);
        move(zoomedAt(seen, now / before, handAt(origin), range));
        return now;
      },
    },
    {
      target,
      eventOptions: { passive: false },
      drag: { filterTaps: true, pointer: { keys: false } },
    },
  );
  const zoom = useSteady((by: number) => move(zoomedAt(seen, by, { x: 0, y: 0 }, range)));
  const pan = useSteady((x: number, y: number) =>
    move({ ...seen, x: seen.x + x / seen.scale, y: seen.y + y / seen.scale }),
  );
  return { seen, look: move, zoom, pan };
}

/** CSS pixels that an arrow key goes. */
const STEP = 60;

const KEYS: Readonly<Record<string, (to: Pick<PanZoom, 'zoom' | 'pan'>) => void>> = {
  ArrowLeft: ({ pan }) => pan(-STEP, 0),
  ArrowRight: ({ pan }) => pan(STEP, 0),
  ArrowUp: ({ pan }) => pan(0, STEP),
  ArrowDown: ({ pan }) => pan(0, -STEP),
  '+': ({ zoom }) => zoom(1.5),
  '=': ({ zoom }) => zoom(1.5),
  '-': ({ zoom }) => zoom(1 / 1.5),
};

/** Arrows and plus and minus, on the element that holds the focus. */
export const usePanKeys = ({ zoom, pan }: PanZoom) =>
  useCallback(
    (event: React.KeyboardEvent): void => {
      const go = KEYS[event.key];
      if (!go || event.ctrlKey || event.metaKey || event.altKey) return;
      event.preventDefault();
      event.stopPropagation();
      go({ zoom, pan });
    },
    [zoom, pan],
  );
