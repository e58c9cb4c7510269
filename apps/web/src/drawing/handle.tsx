import { useRef, type KeyboardEvent, type ReactNode } from 'react';
import type { Station } from '@gangway/station';
import { useEditing } from '../store/editing.js';
import { selectStation } from '../store/selectors.js';
import { gestureEnded } from '../store/station.js';
import { useAppDispatch, useAppStore } from '../store/store.js';
import { arrowStep } from './arrows.js';
import { Drag, useSteady, type DragState } from './drag.js';
import { useKeyRun } from './key-run.js';
import { useNotice } from '../ui/notices.js';

/** One press of an arrow key on a building, m. */
const STEP_M = 0.1;

let drags = 0;

export interface HandleProps {
  label: string;
  valueText: string;
  /** The figure that goes with its first direction. */
  value: number;
  /** Pixels for each length of the drawing; below zero where it lies turned round. */
  scale: number;
  /** The same up the sheet, where heights are drawn larger. */
  scaleUp?: number;
  /** One press of an arrow key, in lengths of the drawing. */
  step?: number;
  /** The change as it was when the hand took hold, moved so far across and up the sheet. */
  write: (from: Station, dx: number, dy: number) => Station;
  /** The same for a key, where its step is no length in the drawing. */
  writeStep?: (from: Station, dx: number, dy: number) => Station;
  onHold?: (held: boolean) => void;
  /** Other keys on it: deleting, adding. */
  keys?: Readonly<Record<string, () => void>>;
  onFocus?: () => void;
  /** JSON pointer of what it moves, for problems found there. */
  pointer?: string;
  /** Ends of its value, where it has such. */
  ends?: readonly [number, number];
  /** What it is, where a slider in one direction does not say it. */
  what?: string;
  children: ReactNode;
}

/** Something in a drawing that can be dragged, or moved with the arrow keys. */
export function Handle({
  label,
  valueText,
  value,
  scale,
  scaleUp = scale,
  step: keyStep = STEP_M,
  write,
  writeStep = write,
  onHold,
  keys,
  onFocus,
  pointer = '/site',
  ends,
  what,
  children,
}: HandleProps) {
  const target = useRef<SVGGElement>(null);
  const next = useRef<(() => void) | null>(null);
  const store = useAppStore();
  const dispatch = useAppDispatch();
  const { change } = useEditing();
  const keyRun = useKeyRun();
  const notice = useNotice();

  const onDrag = useSteady(({ first, last, movement: [dx, dy], memo }: DragState): Station => {
    if (first) {
      drags += 1;
      onHold?.(true);
    }
    const from = (memo as Station | undefined) ?? selectStation(store.getState());
    // What the site cannot be stays where it last could.
    const gesture = `drag-${drags}`;
    next.current = () => {
      next.current = null;
      change(
        `Move ${label.toLowerCase()}`,
        pointer,
        () => write(from, dx / scale, -dy / scaleUp),
        gesture,
      );
    };
    // A hand reports oftener than is drawn: only the last place before each picture counts.
    if (last) {
      next.current();
      dispatch(gestureEnded());
      onHold?.(false);
    } else requestAnimationFrame(() => next.current?.());
    return from;
  });

  const onKeyDown = (event: KeyboardEvent): void => {
    const own = keys?.[event.key];
    if (own) {
      event.preventDefault();
      event.stopPropagation();
      own();
      return;
    }
    const step = arrowStep(event, keyStep);
    if (!step) return;
    event.preventDefault();
    event.stopPropagation();
    const refused = change(
      `Move ${label.toLowerCase()}`,
      pointer,
      (now) => writeStep(now, ...step),
      keyRun(label, event.repeat),
    );
    if (refused !== null) notice([refused]);
  };

  return (
    <g
      ref={target}
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuenow={Number(value.toFixed(3))}
      aria-valuetext={valueText}
      {...(ends ? { 'aria-valuemin': ends[0], 'aria-valuemax': ends[1] } : {})}
      {...(what === undefined ? {} : { 'aria-roledescription': what })}
      onKeyDown={onKeyDown}
      onFocus={onFocus}
      className="cursor-grab touch-none active:cursor-grabbing"
    >
      {children}
      <Drag {...{ target, onDrag }} />
    </g>
  );
}
