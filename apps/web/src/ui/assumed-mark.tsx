import clsx from 'clsx';
import { lazy, Suspense, useState } from 'react';
import type { Assumption } from '@gangway/station';
import { AssumedRing, RING_BUTTON } from './assumed-ring.js';

// What was assumed is asked for now and then: what shows it is not needed before.
const AssumedPopover = lazy(() => import('./assumed-popover.js'));

/** A ring after a figure that rests on what nobody gave; it opens to what was taken and why. */
export function AssumedMark({
  found,
  of,
  className,
}: {
  found: readonly Assumption[];
  of: string;
  className?: string | undefined;
}) {
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
