/** The words beside a scale: they open, and say so by dots. */
export const SCALE_WORDS =
  'narrow min-h-6 truncate text-[12px] text-quiet underline decoration-dotted decoration-rule-strong underline-offset-4 hover:text-ink';
