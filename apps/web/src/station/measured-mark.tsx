import clsx from 'clsx';
import { lazy, Suspense, useState } from 'react';
import type { Measurement } from '@gangway/station';
import { MEASURED_BUTTON, MeasuredRing } from '../ui/measured-ring.js';

const MeasuredPopover = lazy(() => import('./measured-popover.js'));

/** A filled ring after a figure that rests on what was measured; it opens to what, and to the ideal. */
export function MeasuredMark({
  found,
  of,
  className,
}: {
  found: readonly Measurement[];
  of: string;
  className?: string | undefined;
}) {
  const [asked, setAsked] = useState(false);
  if (found.length === 0) return null;
  const closed = (
    <button
      type="button"
      aria-label={`Measured: ${of}`}
      aria-haspopup="dialog"
      className={clsx(MEASURED_BUTTON, className)}
      onClick={() => setAsked(true)}
    >
      <MeasuredRing />
    </button>
  );
  return asked ? (
    <Suspense fallback={closed}>
      <MeasuredPopover {...{ found, of }} />
    </Suspense>
  ) : (
    closed
  );
}
