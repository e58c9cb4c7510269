import { PDFDocument, rgb, StandardFonts } from 'pdf-lib';
import type { Sheet } from '@gangway/station';

/** Points of a millimetre. */
const PT = 72 / 25.4;

/** The built-in fonts know Latin letters; what they do not know becomes a question mark. */
const plain = (text: string): string =>
  text.replaceAll('−', '-').replace(/[^\u0020-\u007e\u00a0-\u00ff‘’“”–—…•]/g, '?');

/** The sheet as a PDF page of its own size: a millimetre of it is a millimetre on paper. */
export async function stripPdf(sheet: Sheet): Promise<Uint8Array> {
  const pdf = await PDFDocument.create();
  pdf.setTitle(plain(sheet.title));
  // Printers are asked not to fit it to the paper.
  pdf.catalog.getOrCreateViewerPreferences().setPrintScaling('None' as never);
  const font = await pdf.embedFont(StandardFonts.Helvetica);
  const page = pdf.addPage([sheet.widthMm * PT, sheet.heightMm * PT]);
  const y = (mm: number): number => (sheet.heightMm - mm) * PT;
  for (const { x1, y1, x2, y2, strokeMm } of sheet.lines) {
    page.drawLine({
      start: { x: x1 * PT, y: y(y1) },
      end: { x: x2 * PT, y: y(y2) },
      thickness: strokeMm * PT,
      color: rgb(0, 0, 0),
    });
  }
  for (const { x, y: at, text, sizeMm, anchor } of sheet.texts) {
    const words = plain(text);
    const size = sizeMm * PT;
    const width = font.widthOfTextAtSize(words, size);
    const back = anchor === 'end' ? width : anchor === 'middle' ? width / 2 : 0;
    page.drawText(words, { x: x * PT - back, y: y(at), size, font });
  }
  return pdf.save();
}
