import { lazy } from 'react';
import type { Measurement } from '@gangway/station';
import { MEASURED_BUTTON, MeasuredRing } from '../ui/measured-ring.js';
import { RingMark } from '../ui/ring-mark.js';

const MeasuredPopover = lazy(() => import('./measured-popover.js'));

/** A filled ring after a figure that rests on what was measured; it opens to what, and to the ideal. */
export const MeasuredMark = ({
  found,
  of,
  className,
}: {
  found: readonly Measurement[];
  of: string;
  className?: string | undefined;
}) =>
  found.length === 0 ? null : (
    <RingMark
      label={`Measured: ${of}`}
      ring={<MeasuredRing />}
      look={MEASURED_BUTTON}
      className={className}
    >
      <MeasuredPopover {...{ found, of }} />
    </RingMark>
  );
