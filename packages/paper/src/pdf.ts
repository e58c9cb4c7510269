import { create, type Font } from 'fontkit';
import PDFDocument from 'pdfkit';
import type { Sheet, SheetText } from './sheet.js';

/** Points of a millimetre. */
const PT = 72 / 25.4;

export interface Pdf {
  readonly bytes: Uint8Array<ArrayBuffer>;
  /** Letters the typeface does not have, each once; in their place stands its empty box. */
  readonly missing: string;
}

interface Run {
  readonly face: number;
  readonly text: string;
}

/**
 * Sheets as the pages of a PDF, each of its own size: a millimetre of it is a millimetre on paper. Its letters
 * are embedded.
 * @param faces files of the typeface, see FACE_FILES
 */
export async function sheetPdf(
  sheets: readonly Sheet[],
  faces: readonly Uint8Array[],
): Promise<Pdf> {
  const fonts = faces.map((bytes) => create(bytes as Buffer) as Font);
  const missing = new Set<string>();
  const pdf = new PDFDocument({
    autoFirstPage: false,
    margin: 0,
    // Its own first font is not among those that ship.
    font: faces[0] as unknown as string,
    info: { Title: sheets[0]?.title ?? '' },
  });
  // Printers are asked not to fit it to the paper.
  (pdf as unknown as Rooted)._root.data.ViewerPreferences = pdf.ref({ PrintScaling: 'None' });
  faces.forEach((bytes, i) => pdf.registerFont(nameOf(i), bytes as Buffer));
  const done = collected(pdf);
  for (const sheet of sheets) {
    pdf.addPage({ size: [sheet.widthMm * PT, sheet.heightMm * PT], margin: 0 });
    for (const { x1, y1, x2, y2, strokeMm } of sheet.lines) {
      pdf.lineWidth(strokeMm * PT);
      pdf
        .moveTo(x1 * PT, y1 * PT)
        .lineTo(x2 * PT, y2 * PT)
        .stroke();
    }
    for (const text of sheet.texts) write(pdf, text, runsOf(text.text, fonts, missing));
  }
  pdf.end();
  return { bytes: await done, missing: [...missing].join('') };
}

/** What the writer keeps to itself: the catalogue of the document. */
interface Rooted {
  readonly _root: { readonly data: Record<string, unknown> };
}

const nameOf = (face: number): string => `face ${face}`;

/** A text cut where another file of the typeface has to go on. */
function runsOf(text: string, fonts: readonly Font[], missing: Set<string>): Run[] {
  const runs: Run[] = [];
  for (const letter of text.normalize('NFC')) {
    const found = fonts.findIndex((font) => font.hasGlyphForCodePoint(letter.codePointAt(0)!));
    if (found < 0) missing.add(letter);
    const face = Math.max(0, found);
    const last = runs.at(-1);
    if (last?.face === face) runs[runs.length - 1] = { face, text: last.text + letter };
    else runs.push({ face, text: letter });
  }
  return runs;
}

function write(pdf: PDFKit.PDFDocument, { x, y, sizeMm, anchor }: SheetText, runs: readonly Run[]) {
  pdf.fontSize(sizeMm * PT);
  const widths = runs.map(({ face, text }) => pdf.font(nameOf(face)).widthOfString(text));
  const width = widths.reduce((sum, each) => sum + each, 0);
  let at = x * PT - (anchor === 'end' ? width : anchor === 'middle' ? width / 2 : 0);
  runs.forEach(({ face, text }, i) => {
    pdf.font(nameOf(face)).text(text, at, y * PT, { lineBreak: false, baseline: 'alphabetic' });
    at += widths[i]!;
  });
}

const collected = (pdf: PDFKit.PDFDocument): Promise<Uint8Array<ArrayBuffer>> =>
  new Promise((resolve, reject) => {
    const parts: Uint8Array[] = [];
    pdf.on('data', (part: Uint8Array) => parts.push(part));
    pdf.on('error', reject);
    pdf.on('end', () => {
      const all = new Uint8Array(parts.reduce((sum, { length }) => sum + length, 0));
      let at = 0;
      for (const part of parts) {
        all.set(part, at);
        at += part.length;
      }
      resolve(all);
    });
  });
