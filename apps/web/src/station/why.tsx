import { CircleHelp } from 'lucide-react';
import { lazy, Suspense, useState } from 'react';
import type { Reason } from '@gangway/station';
import { WHY } from './why-look.js';

// Reasons are asked for now and then: what shows them is not needed before.
const WhyPopover = lazy(() => import('./why-popover.js'));

/** Opens a result to its reason: formula in words and symbols, numbers, source. */
export function Why({ reason, of }: { reason: Reason; of: string }) {
  const [asked, setAsked] = useState(false);
  const closed = (
    <button
      type="button"
      aria-label={`Why: ${of}`}
      aria-haspopup="dialog"
      className={WHY}
      onClick={() => setAsked(true)}
    >
      <CircleHelp size={14} aria-hidden />
    </button>
  );
  return asked ? (
    <Suspense fallback={closed}>
      <WhyPopover reason={reason} of={of} />
    </Suspense>
  ) : (
    closed
  );
}
