import latin from '@fontsource/archivo/files/archivo-latin-400-normal.woff?url';
import latinStrong from '@fontsource/archivo/files/archivo-latin-600-normal.woff?url';
import latinExt from '@fontsource/archivo/files/archivo-latin-ext-400-normal.woff?url';
import latinExtStrong from '@fontsource/archivo/files/archivo-latin-ext-600-normal.woff?url';
import vietnamese from '@fontsource/archivo/files/archivo-vietnamese-400-normal.woff?url';
import vietnameseStrong from '@fontsource/archivo/files/archivo-vietnamese-600-normal.woff?url';
import { sheetPdf, typeface, type Pdf, type Sheet, type Typeface } from '@gangway/paper';

/** In the order of the package's FACE_FILES. */
const FACES = [latin, latinExt, vietnamese, latinStrong, latinExtStrong, vietnameseStrong];

async function bytesOf(address: string): Promise<Uint8Array> {
  const response = await fetch(address);
  if (!response.ok) throw new Error(`no typeface at ${address}`);
  return new Uint8Array(await response.arrayBuffer());
}

let read: Promise<Typeface> | null = null;

/** The letters of the app, for setting text on paper; read once. */
export function appTypeface(): Promise<Typeface> {
  read ??= Promise.all(FACES.map(bytesOf)).then(typeface);
  // A failure is tried again when it is asked for again.
  read.catch(() => (read = null));
  return read;
}

/** The sheets as PDF, with the app's own letters. */
export const paperPdf = async (sheets: readonly Sheet[]): Promise<Pdf> =>
  sheetPdf(sheets, await appTypeface());
