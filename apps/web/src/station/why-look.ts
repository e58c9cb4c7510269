/** How the mark beside a result looks, shut or open. */
export const WHY =
  'print:hidden -my-1 inline-flex size-6 shrink-0 items-center justify-center text-faint hover:text-ink pointer-coarse:size-11';
