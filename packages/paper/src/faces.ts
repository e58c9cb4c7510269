const PARTS = ['latin', 'latin-ext', 'vietnamese'] as const;
const WEIGHTS = [400, 600] as const;

/**
 * The typeface of the app, as the files it comes in: each holds another part of the letters, the
 * plain ones first, then the strong. They ship with the app; who makes a PDF reads them and hands
 * over their bytes.
 */
export const FACE_FILES: readonly string[] = WEIGHTS.flatMap((weight) =>
  PARTS.map((part) => `archivo-${part}-${weight}-normal.woff`),
);

/** Files of one weight. */
export const FACES_EACH = PARTS.length;
