import { useDrag, useWheel, type FullGestureState } from '@use-gesture/react';
import { memo, useCallback, useLayoutEffect, useRef, type RefObject } from 'react';

/** The same function throughout, which does what the latest one does. */
export function useSteady<Given extends unknown[], Back>(
  now: (...given: Given) => Back,
): (...given: Given) => Back {
  const latest = useRef(now);
  useLayoutEffect(() => {
    latest.current = now;
  });
  return useCallback((...given) => latest.current(...given), []);
}

export type DragState = Omit<FullGestureState<'drag'>, 'event'> & { event: Event };
export type WheelState = FullGestureState<'wheel'>;

/**
 * Listens to a hand on an element. A part of its own, drawn once, because the gestures bind their
 * listeners anew whenever what holds them is drawn, which during a drag is at every picture.
 * @param props.onDrag the same function throughout
 */
export const Drag = memo(function Drag<T>({
  target,
  onDrag,
}: {
  target: RefObject<Element | null>;
  /** What it gives back is its memo at the next call. */
  onDrag: (state: DragState) => T;
}) {
  useDrag(onDrag, { target, pointer: { keys: false } });
  return null;
});

/** The same for a wheel. */
export const Wheel = memo(function Wheel({
  target,
  onWheel,
}: {
  target: RefObject<Element | null>;
  onWheel: (state: WheelState) => void;
}) {
  useWheel(onWheel, { target, eventOptions: { passive: false } });
  return null;
});
