/** A word that opens: dotted underneath, otherwise as the words around it. */
export const WORD =
  'min-h-6 min-w-6 text-left underline decoration-dotted decoration-1 decoration-rule-strong underline-offset-4 hover:decoration-ink';
