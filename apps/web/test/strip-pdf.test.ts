import { inflateSync } from 'node:zlib';
import { PDFDocument, PDFName, PDFRawStream } from 'pdf-lib';
import { limitsStrip, newStation } from '@gangway/station';
import { stripPdf } from '../src/cover/strip-pdf.js';

/** Straight lines a page draws, in mm, read from its own operators. */
async function linesOf(bytes: Uint8Array): Promise<{ length: number; widthMm: number }[]> {
  const pdf = await PDFDocument.load(bytes);
  const MM = 25.4 / 72;
  const found: { length: number; widthMm: number }[] = [];
  for (const [, object] of pdf.context.enumerateIndirectObjects()) {
    if (!(object instanceof PDFRawStream)) continue;
    if (object.dict.get(PDFName.of('Type')) !== undefined) continue;
    const text = inflateSync(object.contents).toString('latin1');
    const line =
      /([\d.]+) w\n\[[^\]]*\] \d+ d\n(?:[\d.-]+ [\d.-]+ m\n)*([\d.-]+) ([\d.-]+) m\n([\d.-]+) ([\d.-]+) l/g;
    for (const [, width, x1, y1, x2, y2] of text.matchAll(line)) {
      found.push({
        length: Math.hypot(Number(x2) - Number(x1), Number(y2) - Number(y1)) * MM,
        widthMm: Number(width) * MM,
      });
    }
  }
  return found;
}

describe('the strip as PDF', () => {
  const station = newStation('check');
  const sheet = limitsStrip(station);

  it('measures true: the line of 100 mm is 100 mm to 0.1 %, the page the size of the sheet', async () => {
    const bytes = await stripPdf(sheet);
    const page = (await PDFDocument.load(bytes)).getPage(0);
    expect((page.getWidth() * 25.4) / 72).toBeCloseTo(sheet.widthMm, 6);
    expect((page.getHeight() * 25.4) / 72).toBeCloseTo(sheet.heightMm, 6);
    const lines = await linesOf(bytes);
    expect(lines).toHaveLength(sheet.lines.length);
    const proof = lines.filter(({ length }) => Math.abs(length - 100) < 0.1);
    expect(proof).toHaveLength(1);
    sheet.lines.forEach(({ x1, x2, y1, y2 }, i) => {
      expect(lines[i]!.length).toBeCloseTo(Math.hypot(x2 - x1, y2 - y1), 6);
    });
  });

  it('takes any name, letters it does not know become question marks', async () => {
    const odd = { ...station, lens: { ...station.lens, name: 'Übergang − 写真' } };
    await expect(stripPdf(limitsStrip(odd))).resolves.toBeInstanceOf(Uint8Array);
  });
});
