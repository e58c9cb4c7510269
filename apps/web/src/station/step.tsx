import clsx from 'clsx';
import isEqual from 'fast-deep-equal';
import { createContext, memo, use, type MouseEvent } from 'react';
import { useHref, useLinkClickHandler, useLocation, useResolvedPath } from 'react-router';
import type { Rests, Standing } from '@gangway/station';
import { AssumedRing } from '../ui/assumed-ring.js';
import { MeasuredRing } from '../ui/measured-ring.js';
import { STANDING_TEXT } from '../ui/standing.js';

/** A step's verdict as the strip shows it. */
export interface Shown {
  /** Null: there is nothing to judge. */
  standing: Standing | null;
  figure: string;
  words: string;
  sentence: string;
  rests: readonly Rests[];
}

interface Marked extends Shown {
  assumed: boolean;
  measured: boolean;
}

/** What a step's link shows; apart from the link, which costs more to draw and stays as it is. */
const Verdict = createContext<Marked | null>(null);

/** Drawn again only when its verdict changes. */
export const Step = memo(function Step({
  path,
  label,
  place,
  ...shown
}: Marked & { path: string; label: string; place: string }) {
  return (
    <Verdict value={shown}>
      <StepLink {...{ path, label, place }} />
    </Verdict>
  );
}, isEqual);

interface Leading {
  readonly href: string;
  readonly onClick: (event: MouseEvent<HTMLAnchorElement>) => void;
  /** The step that is open. */
  readonly active: boolean;
}

/** Where a step leads; worked out once for a place, as it costs more than all that is shown. */
const StepLink = memo(function StepLink(step: { path: string; label: string; place: string }) {
  const { pathname } = useLocation();
  const to = useResolvedPath(step.path).pathname;
  const leading: Leading = {
    href: useHref(step.path),
    onClick: useLinkClickHandler(step.path),
    active: pathname === to || pathname.startsWith(`${to}/`),
  };
  return <StepAnchor {...step} {...leading} />;
});

function StepAnchor({
  path,
  label,
  place,
  href,
  onClick,
  active,
}: Leading & { path: string; label: string; place: string }) {
  const { standing, figure, words, sentence, assumed, measured } = use(Verdict)!;
  return (
    <a
      href={href}
      onClick={onClick}
      aria-current={active ? 'page' : undefined}
      aria-label={`${label}: ${sentence}`}
      {...(assumed
        ? { title: 'Rests on what is assumed; the step’s own figures say on what.' }
        : measured
          ? { title: 'Rests on what was measured.' }
          : {})}
      className={clsx(
        'flex min-w-0 flex-1 flex-col border-r border-b-[3px] border-rule px-1.5 py-2 sm:max-w-96 sm:px-5',
        active ? 'border-b-ink bg-paper' : 'border-b-transparent hover:bg-paper',
      )}
    >
      <span className="flex justify-between text-quiet">
        <span>{label}</span>
        <span className="narrow text-[12px] pointer-coarse:hidden">{place}</span>
      </span>
      <span className="flex flex-wrap items-baseline gap-x-1.5">
        <span
          className={clsx(
            'figure text-[17px] leading-8 whitespace-nowrap max-sm:narrow sm:text-[24px]',
            // A step that is well says so by its words; only the screen's own verdict is coloured.
            standing === null || (standing === 'within' && path === 'view')
              ? ''
              : STANDING_TEXT[standing],
          )}
        >
          {figure}
          {assumed && (
            <span className="ml-1 inline-block align-middle text-costs">
              <AssumedRing />
            </span>
          )}
          {!assumed && measured && (
            <span className="ml-1 inline-block align-middle text-within">
              <MeasuredRing />
            </span>
          )}
        </span>
        <span className="text-[13px] text-quiet">{words}</span>
      </span>
    </a>
  );
}
