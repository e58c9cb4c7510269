import { lazy } from 'react';
import type { Assumption } from '@gangway/station';
import { AssumedRing, RING_BUTTON } from './assumed-ring.js';
import { RingMark } from './ring-mark.js';

const AssumedPopover = lazy(() => import('./assumed-popover.js'));

/** A ring after a figure that rests on what nobody gave; it opens to what was taken and why. */
export const AssumedMark = ({
  found,
  of,
  className,
}: {
  found: readonly Assumption[];
  of: string;
  className?: string | undefined;
}) =>
  found.length === 0 ? null : (
    <RingMark
      label={`Assumed: ${of}`}
      ring={<AssumedRing />}
      look={RING_BUTTON}
      className={className}
    >
      <AssumedPopover found={found} of={of} />
    </RingMark>
  );
