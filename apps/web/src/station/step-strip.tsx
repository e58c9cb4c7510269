import clsx from 'clsx';
import isEqual from 'fast-deep-equal';
import { memo } from 'react';
import { NavLink } from 'react-router';
import { assumedFor, type Rests, type Standing } from '@gangway/station';
import {
  selectAssumed,
  selectCoverVerdict,
  selectFocusVerdict,
  selectViewVerdict,
} from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { STANDING_TEXT } from '../ui/standing.js';
import { AssumedRing } from '../ui/assumed-ring.js';
import { STEPS, type StepPath } from '../places.js';

interface Shown {
  standing: Standing;
  figure: string;
  words: string;
  sentence: string;
  rests: readonly Rests[];
}

/** Steps and their verdicts in one: every step shows where it stands as its largest figure. */
export function StepStrip() {
  const verdicts: Record<StepPath, Shown> = {
    view: useAppSelector(selectViewVerdict),
    cover: useAppSelector(selectCoverVerdict),
    focus: useAppSelector(selectFocusVerdict),
  };
  const assumed = useAppSelector(selectAssumed);
  return (
    <nav aria-label="Steps" className="flex border-b border-rule bg-page">
      {STEPS.map(({ key, path, label }) => (
        <Step
          key={path}
          place={key}
          assumed={assumedFor(assumed, verdicts[path].rests).length > 0}
          {...{ path, label }}
          {...verdicts[path]}
        />
      ))}
    </nav>
  );
}

/** Drawn again only when its verdict changes. */
const Step = memo(function Step({
  path,
  label,
  place,
  standing,
  figure,
  words,
  sentence,
  assumed,
}: Shown & { path: string; label: string; place: string; assumed: boolean }) {
  return (
    <NavLink
      to={path}
      aria-label={`${label}: ${sentence}`}
      {...(assumed
        ? { title: 'Rests on what is assumed; the step’s own figures say on what.' }
        : {})}
      className={({ isActive }) =>
        clsx(
          'flex min-w-0 flex-1 flex-col justify-center border-r border-b-[3px] border-rule px-5 py-2 sm:max-w-96',
          isActive ? 'border-b-ink bg-paper' : 'border-b-transparent hover:bg-paper',
        )
      }
    >
      <span className="flex justify-between text-quiet">
        <span>{label}</span>
        <span className="narrow text-[12px] pointer-coarse:hidden">{place}</span>
      </span>
      <span className="flex flex-wrap items-baseline gap-x-1.5">
        <span
          className={clsx(
            'figure text-[24px] leading-8 whitespace-nowrap',
            // A step that is well says so by its words; only the screen's own verdict is coloured.
            standing === 'within' && path === 'view' ? '' : STANDING_TEXT[standing],
          )}
        >
          {figure}
          {assumed && (
            <span className="ml-1 inline-block align-middle text-costs">
              <AssumedRing />
            </span>
          )}
        </span>
        <span className="text-[13px] text-quiet">{words}</span>
      </span>
    </NavLink>
  );
}, isEqual);
