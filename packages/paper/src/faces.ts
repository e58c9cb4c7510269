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

/**
 * Where the typeface has no letter: Greek and Cyrillic in a like one, and all other writing in one
 * that has every letter of the basic plane, plain as it is. Read only when a name asks for them.
 */
export const MORE_FILES: readonly string[] = [
  '@fontsource/noto-sans/files/noto-sans-greek-400-normal.woff',
  '@fontsource/noto-sans/files/noto-sans-cyrillic-400-normal.woff',
  '@fontsource/unifont/files/unifont-latin-400-normal.woff',
];

/** Files of one weight. */
export const FACES_EACH = PARTS.length;
