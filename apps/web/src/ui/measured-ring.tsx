/** How the mark's button looks, shut or open. */
export const MEASURED_BUTTON =
  'inline-flex size-6 shrink-0 items-center justify-center text-within hover:text-ink pointer-coarse:size-11';

/** The mark of a figure that rests on what was measured: a ring, filled. */
export const MeasuredRing = () => (
  <svg width={9} height={9} viewBox="0 0 9 9" aria-hidden>
    <circle cx={4.5} cy={4.5} r={3.9} fill="currentColor" />
  </svg>
);
