import clsx from 'clsx';
import { lazy, Suspense, useState } from 'react';
import { assumedFor, type Assumption, type Rests } from '@gangway/station';
import { selectAssumed } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { AssumedRing, RING_BUTTON } from './assumed-ring.js';

// What was assumed is asked for now and then: what shows it is not needed before.
const AssumedPopover = lazy(() => import('./assumed-popover.js'));

/** What of a station's figures rests on what nobody gave. */
export const useAssumed = (rests: readonly Rests[]): readonly Assumption[] =>
  assumedFor(useAppSelector(selectAssumed), rests);

/** A ring after a figure that rests on what nobody gave; it opens to what was taken and why. */
export function Assumed({
  rests,
  of,
  className,
}: {
  rests: readonly Rests[];
  of: string;
  className?: string;
}) {
  const found = useAssumed(rests);
  const [asked, setAsked] = useState(false);
  if (found.length === 0) return null;
  const closed = (
    <button
      type="button"
      aria-label={`Assumed: ${of}`}
      aria-haspopup="dialog"
      className={clsx(RING_BUTTON, className)}
      onClick={() => setAsked(true)}
    >
      <AssumedRing />
    </button>
  );
  return asked ? (
    <Suspense fallback={closed}>
      <AssumedPopover found={found} of={of} />
    </Suspense>
  ) : (
    closed
  );
}
