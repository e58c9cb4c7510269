import latin from '@fontsource/archivo/files/archivo-latin-400-normal.woff?url';
import latinExt from '@fontsource/archivo/files/archivo-latin-ext-400-normal.woff?url';
import vietnamese from '@fontsource/archivo/files/archivo-vietnamese-400-normal.woff?url';
import { sheetPdf, type Pdf, type Sheet } from '@gangway/paper';

/** In the order of the package's FACE_FILES. */
const FACES = [latin, latinExt, vietnamese];

async function bytesOf(address: string): Promise<Uint8Array> {
  const response = await fetch(address);
  if (!response.ok) throw new Error(`no typeface at ${address}`);
  return new Uint8Array(await response.arrayBuffer());
}

/** The sheets as PDF, with the app's own letters. */
export const stripPdf = async (sheets: readonly Sheet[]): Promise<Pdf> =>
  sheetPdf(sheets, await Promise.all(FACES.map(bytesOf)));
