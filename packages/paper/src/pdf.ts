import PDFDocument from 'pdfkit';
import type { Sheet, SheetShape, SheetText } from './sheet.js';
import { typeface, type Typeface } from './typeface.js';

/** Points of a millimetre. */
const PT = 72 / 25.4;

export interface Pdf {
  readonly bytes: Uint8Array<ArrayBuffer>;
  /** Letters the typeface does not have, each once; in their place stands its empty box. */
  readonly missing: string;
}

/**
 * Sheets as the pages of a PDF, each of its own size: a millimetre of it is a millimetre on paper. Its letters
 * are embedded.
 * @param faces files of the typeface, see FACE_FILES, or the typeface made of them
 */
export async function sheetPdf(
  sheets: readonly Sheet[],
  faces: readonly Uint8Array[] | Typeface,
): Promise<Pdf> {
  const face = 'runs' in faces ? faces : typeface(faces);
  const pdf = new PDFDocument({
    autoFirstPage: false,
    margin: 0,
    // Its own first font is not among those that ship.
    font: face.files[0] as unknown as string,
    info: { Title: sheets[0]?.title ?? '' },
  });
  // Printers are asked not to fit it to the paper.
  const inner = pdf as unknown as Inner;
  inner._root.data.ViewerPreferences = pdf.ref({ PrintScaling: 'None' });
  // Files of one typeface bear one name, and the writer opens the font anew at every change between them.
  const opened = face.files.map((bytes) => {
    pdf.font(bytes as Buffer);
    return inner._font;
  });
  const use = (file: number): void => {
    inner._font = opened[file];
  };
  const done = collected(pdf);
  for (const sheet of sheets) {
    pdf.addPage({ size: [sheet.widthMm * PT, sheet.heightMm * PT], margin: 0 });
    for (const shape of sheet.shapes ?? []) draw(pdf, shape);
    pdf.strokeColor('black');
    for (const { x1, y1, x2, y2, strokeMm } of sheet.lines) {
      pdf.lineWidth(strokeMm * PT);
      pdf
        .moveTo(x1 * PT, y1 * PT)
        .lineTo(x2 * PT, y2 * PT)
        .stroke();
    }
    for (const text of sheet.texts) write(pdf, text, face, use);
  }
  pdf.end();
  const all = sheets.flatMap(({ texts }) => texts.map(({ text }) => text)).join('');
  return { bytes: await done, missing: face.missing(all).join('') };
}

/** What the writer keeps to itself: the catalogue of the document, and the font in use. */
interface Inner {
  readonly _root: { readonly data: Record<string, unknown> };
  _font: unknown;
}

const greyOf = (grey = 0): string => {
  const byte = Math.round(255 * grey)
    .toString(16)
    .padStart(2, '0');
  return `#${byte}${byte}${byte}`;
};

function draw(
  pdf: PDFKit.PDFDocument,
  { points, closed, strokeMm, fill, dashMm, grey }: SheetShape,
): void {
  points.forEach(([x, y], i) => {
    if (i === 0) pdf.moveTo(x * PT, y * PT);
    else pdf.lineTo(x * PT, y * PT);
  });
  if (closed) pdf.closePath();
  if (strokeMm !== undefined) pdf.lineWidth(strokeMm * PT).strokeColor(greyOf(grey));
  if (dashMm === undefined) pdf.undash();
  else pdf.dash(dashMm * PT, { space: dashMm * PT });
  if (fill !== undefined) pdf.fillColor(greyOf(fill));
  if (fill !== undefined && strokeMm !== undefined) pdf.fillAndStroke();
  else if (fill !== undefined) pdf.fill();
  else pdf.stroke();
  pdf.undash();
}

function write(
  pdf: PDFKit.PDFDocument,
  { x, y, sizeMm, anchor, text, strong, grey }: SheetText,
  face: Typeface,
  use: (file: number) => void,
): void {
  pdf.fontSize(sizeMm * PT).fillColor(greyOf(grey));
  const runs = face.runs(text, strong);
  // Measuring takes as long as writing: only what is not begun at its place is measured.
  const measured = anchor !== 'start' || runs.length > 1;
  const widths = runs.map((run) => {
    if (!measured) return 0;
    use(run.face);
    return pdf.widthOfString(run.text);
  });
  const width = widths.reduce((sum, each) => sum + each, 0);
  let at = x * PT - (anchor === 'end' ? width : anchor === 'middle' ? width / 2 : 0);
  runs.forEach((run, i) => {
    use(run.face);
    pdf.text(run.text, at, y * PT, { lineBreak: false, baseline: 'alphabetic' });
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
