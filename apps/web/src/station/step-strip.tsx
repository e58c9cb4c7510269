import { lazy, Suspense } from 'react';
import { shallowEqual } from 'react-redux';
import { assumedFor, HELD_MOSAIC, NO_MOSAIC } from '@gangway/station';
import {
  selectAssumed,
  selectCoverVerdict,
  selectFocusVerdict,
  selectStation,
  selectViewVerdict,
} from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { STEPS, type StepPath } from '../places.js';
import { Step, type Shown } from './step.js';

// Frames are laid out and judged only where a station has any.
const LaidStep = lazy(() => import('./laid-step.js'));

/** Until the layout is read. */
const READING: Shown = {
  standing: 'within',
  figure: '…',
  words: '',
  sentence: 'The layout is being read.',
  rests: [],
};

/** Steps and their verdicts in one: every step shows where it stands as its largest figure. */
export function StepStrip() {
  const { laid, held } = useAppSelector((state) => {
    const { mosaic, held_off } = selectStation(state);
    return { laid: mosaic !== undefined, held: held_off !== undefined };
  }, shallowEqual);
  const verdicts: Record<StepPath, Shown> = {
    view: useAppSelector(selectViewVerdict),
    cover: useAppSelector(selectCoverVerdict),
    focus: useAppSelector(selectFocusVerdict),
    mosaic: { ...(held ? HELD_MOSAIC : laid ? READING : NO_MOSAIC), rests: [] },
  };
  const assumed = useAppSelector(selectAssumed);
  return (
    <nav aria-label="Steps" className="flex border-b border-rule bg-page">
      {STEPS.map(({ key, path, label }) => {
        const shown = (
          <Step
            key={path}
            place={key}
            assumed={assumedFor(assumed, verdicts[path].rests).length > 0}
            {...{ path, label }}
            {...verdicts[path]}
          />
        );
        return path === 'mosaic' && laid && !held ? (
          <Suspense key={path} fallback={shown}>
            <LaidStep {...{ path, label }} place={key} />
          </Suspense>
        ) : (
          shown
        );
      })}
    </nav>
  );
}
