import { readFileSync } from 'node:fs';
import { PDFiumLibrary } from '@hyzyla/pdfium';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { FACE_FILES, typeface, type Typeface } from '../src/index.js';

/** PDFs as readers of two other makes show them: pages in pixels, and the words they find. */

const file = (name: string): Uint8Array =>
  readFileSync(new URL(`../../../node_modules/${name}`, import.meta.url));

export const own = (): Uint8Array[] =>
  FACE_FILES.map((name) => file(`@fontsource/archivo/files/${name}`));

export const more = (names: readonly string[]): Uint8Array[] => names.map(file);

export const FACE: Typeface = typeface(own());

/** Pixels a millimetre of paper is shown with. */
export const PX_PER_MM = 12;

export interface Shown {
  readonly widthPx: number;
  readonly heightPx: number;
  /** Red, green, blue, alpha, row by row. */
  readonly pixels: Uint8ClampedArray;
}

/** Every page, rendered. */
export async function shown(bytes: Uint8Array, pxPerMm = PX_PER_MM): Promise<Shown[]> {
  const library = await PDFiumLibrary.init();
  const document = await library.loadDocument(bytes);
  const pages: Shown[] = [];
  for (const page of document.pages()) {
    const { data, width, height } = await page.render({
      // A point is 25.4 / 72 mm.
      scale: pxPerMm * (25.4 / 72),
      render: 'bitmap',
    });
    pages.push({
      widthPx: width,
      heightPx: height,
      pixels: new Uint8ClampedArray(data),
    });
  }
  document.destroy();
  library.destroy();
  return pages;
}

/** What a reader finds on all pages when it looks for words. */
export async function textOf(bytes: Uint8Array): Promise<string> {
  // It keeps what it is given: a copy.
  const document = await getDocument({ data: bytes.slice(), verbosity: 0 }).promise;
  const parts: string[] = [];
  for (let i = 1; i <= document.numPages; i++) {
    const { items } = await (await document.getPage(i)).getTextContent();
    // Spaces come as items of their own, ends of lines as a mark.
    parts.push(
      ...items.map((item) => ('str' in item ? item.str + (item.hasEOL ? ' ' : '') : '')),
      ' ',
    );
  }
  await document.destroy();
  return parts.join('').replace(/\s+/g, ' ');
}

/** Whether a pixel is dark. */
export const isDark = ({ pixels, widthPx }: Shown, x: number, y: number): boolean =>
  pixels[4 * (y * widthPx + x)]! < 128;

/** Longest run of dark pixels in a row, with where it begins. */
export function longestRun(page: Shown, y: number): { from: number; length: number } {
  let best = { from: 0, length: 0 };
  let from = -1;
  for (let x = 0; x <= page.widthPx; x++) {
    const dark = x < page.widthPx && isDark(page, x, y);
    if (dark && from < 0) from = x;
    if (!dark && from >= 0) {
      if (x - from > best.length) best = { from, length: x - from };
      from = -1;
    }
  }
  return best;
}
