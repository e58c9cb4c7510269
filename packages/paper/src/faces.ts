/**
 * The typeface of the app, as the files it comes in: each holds another part of the letters. They
 * ship with the app; who makes a PDF reads them and hands over their bytes.
 */
export const FACE_FILES = [
  'archivo-latin-400-normal.woff',
  'archivo-latin-ext-400-normal.woff',
  'archivo-vietnamese-400-normal.woff',
] as const;
