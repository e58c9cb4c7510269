/** How the ring's button looks, shut or open. */
export const RING_BUTTON =
  'inline-flex size-6 shrink-0 items-center justify-center text-costs hover:text-ink pointer-coarse:size-11';

/** The mark of a figure that rests on what nobody gave. */
export function AssumedRing() {
  return (
    <svg width={9} height={9} viewBox="0 0 9 9" aria-hidden>
      <circle cx={4.5} cy={4.5} r={3.2} fill="none" stroke="currentColor" strokeWidth={1.6} />
    </svg>
  );
}
