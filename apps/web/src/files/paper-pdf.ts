import latin from '@fontsource/archivo/files/archivo-latin-400-normal.woff?url';
import latinStrong from '@fontsource/archivo/files/archivo-latin-600-normal.woff?url';
import latinExt from '@fontsource/archivo/files/archivo-latin-ext-400-normal.woff?url';
import latinExtStrong from '@fontsource/archivo/files/archivo-latin-ext-600-normal.woff?url';
import vietnamese from '@fontsource/archivo/files/archivo-vietnamese-400-normal.woff?url';
import vietnameseStrong from '@fontsource/archivo/files/archivo-vietnamese-600-normal.woff?url';
import greek from '@fontsource/noto-sans/files/noto-sans-greek-400-normal.woff?url';
import cyrillic from '@fontsource/noto-sans/files/noto-sans-cyrillic-400-normal.woff?url';
import all from '@fontsource/unifont/files/unifont-latin-400-normal.woff?url';
import { sheetPdf, typeface, type Pdf, type Sheet, type Typeface } from '@gangway/paper';

/** In the order of the package's FACE_FILES. */
const FACES = [latin, latinExt, vietnamese, latinStrong, latinExtStrong, vietnameseStrong];

async function bytesOf(address: string): Promise<Uint8Array> {
  const response = await fetch(address);
  if (!response.ok) throw new Error(`no typeface at ${address}`);
  return new Uint8Array(await response.arrayBuffer());
}

/** In the order of the package's MORE_FILES. */
const MORE = [greek, cyrillic, all];

const bytesOfAll = (addresses: readonly string[]): Promise<Uint8Array[]> =>
  Promise.all(addresses.map(bytesOf));

/** What was read once is kept; a failure is tried again when it is asked for again. */
function once<T>(read: () => Promise<T>): () => Promise<T> {
  let asked: Promise<T> | null = null;
  return () => {
    asked ??= read();
    asked.catch(() => (asked = null));
    return asked;
  };
}

const own = once(() => bytesOfAll(FACES));
const plain = once(async () => typeface(await own()));
const whole = once(async () => typeface(await own(), await bytesOfAll(MORE)));

/** The letters of the app for setting a text on paper, and others where the text needs them. */
export async function faceFor(text: string): Promise<Typeface> {
  const face = await plain();
  return face.missing(text).length === 0 ? face : whole();
}

/** The sheets as PDF, with the app's own letters. */
export const paperPdf = async (sheets: readonly Sheet[]): Promise<Pdf> =>
  sheetPdf(
    sheets,
    await faceFor(sheets.flatMap(({ texts }) => texts.map(({ text }) => text)).join('')),
  );
