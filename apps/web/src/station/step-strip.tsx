import { lazy, Suspense } from 'react';
import { shallowEqual } from 'react-redux';
import { assumedFor, measuredFor, HELD_MOSAIC, NO_EXPOSURE, NO_MOSAIC } from '@gangway/station';
import {
  selectAssumed,
  selectCoverVerdict,
  selectFocusVerdict,
  selectMeasured,
  selectPlainCardVerdict,
  selectStation,
  selectViewVerdict,
} from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { STEPS, type StepPath } from '../places.js';
import { Step, type Shown } from './step.js';

// Frames are laid out and judged only where a station has any.
const LaidStep = lazy(() => import('./laid-step.js'));
const ExposedStep = lazy(() => import('./exposed-step.js'));
const CardStep = lazy(() => import('./card-step.js'));

/** Until it is read. */
const READING: Shown = {
  standing: 'within',
  figure: '…',
  words: '',
  sentence: 'Being read.',
  rests: [],
};

/** Steps and their verdicts in one: every step shows where it stands as its largest figure. */
export function StepStrip() {
  const { laid, held, exposed } = useAppSelector((state) => {
    const { mosaic, held_off, exposure } = selectStation(state);
    const laidOut = mosaic !== undefined && held_off === undefined;
    return { laid: laidOut, held: held_off !== undefined, exposed: exposure !== undefined };
  }, shallowEqual);
  const verdicts: Record<StepPath, Shown> = {
    view: useAppSelector(selectViewVerdict),
    cover: useAppSelector(selectCoverVerdict),
    focus: useAppSelector(selectFocusVerdict),
    mosaic: { ...(held ? HELD_MOSAIC : laid ? READING : NO_MOSAIC), rests: [] },
    expose: { ...(exposed ? READING : NO_EXPOSURE), rests: [] },
    card: { ...useAppSelector(selectPlainCardVerdict), rests: [] },
  };
  const assumed = useAppSelector(selectAssumed);
  const measured = useAppSelector(selectMeasured);
  const late: Partial<Record<StepPath, typeof LaidStep>> = {
    ...(laid ? { mosaic: LaidStep } : {}),
    ...(exposed ? { expose: ExposedStep } : {}),
    ...(laid || exposed ? { card: CardStep } : {}),
  };
  return (
    <nav aria-label="Steps" className="flex border-b border-rule bg-page">
      {STEPS.map(({ key, path, label }) => {
        const shown = (
          <Step
            key={path}
            place={key}
            assumed={assumedFor(assumed, verdicts[path].rests).length > 0}
            measured={measuredFor(measured, verdicts[path].rests).length > 0}
            {...{ path, label }}
            {...verdicts[path]}
          />
        );
        const Late = late[path];
        return Late ? (
          <Suspense key={path} fallback={shown}>
            <Late {...{ path, label }} place={key} />
          </Suspense>
        ) : (
          shown
        );
      })}
    </nav>
  );
}
