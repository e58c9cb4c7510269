import { readFileSync } from 'node:fs';
import { inflateSync } from 'node:zlib';
import { PDFDict, PDFDocument, PDFName, PDFRawStream } from 'pdf-lib';
import { limitsTable, newStation, type Station } from '@gangway/station';
import {
  FACE_FILES,
  limitsStrip,
  PAPERS,
  PROOF_MM,
  sheetPdf,
  sheetSvg,
  type Paper,
  type Sheet,
} from '../src/index.js';

const FACES = FACE_FILES.map((name) =>
  readFileSync(new URL(`../../../node_modules/@fontsource/archivo/files/${name}`, import.meta.url)),
);

const turning: Station = {
  ...newStation('turning'),
  movement_limits: {
    moves: 'front',
    radial_shift_mm: 12,
    turn_stops_deg: Array.from({ length: 12 }, (_, i) => 30 * i),
  },
};

describe('the strip', () => {
  const [strip] = limitsStrip(newStation('check')) as [Sheet];

  it('has a proof line of exactly its length, and the limits at true length', () => {
    const lengths = strip.lines.filter(({ y1, y2 }) => y1 === y2).map(({ x1, x2 }) => x2 - x1);
    expect(lengths).toContain(PROOF_MM);
    const table = limitsTable(newStation('check'));
    for (const { level } of table.rows) {
      expect(lengths.some((each) => Math.abs(each - level.up.mm!) < 1e-9)).toBe(true);
    }
  });

  it('says when it goes by a lens that was measured, and not while the ideal is planned with', () => {
    const plain = newStation('own');
    const measured = { circle: [{ f_number: 3.5, diameter_mm: 55 }], circle_by: { stops: 4 } };
    const told = (more: object): boolean => {
      const station = { ...plain, lens: { ...plain.lens, measured: { ...measured, ...more } } };
      return limitsStrip(station)[0]!.texts.some(({ text }) => text.includes('as it was measured'));
    };
    expect([told({}), told({ use: false })]).toEqual([true, false]);
  });

  it('is laid out on A4 and on Letter, over as many pages as it needs, each with its proof', () => {
    for (const paper of Object.keys(PAPERS) as Paper[]) {
      const pages = limitsStrip(turning, paper);
      expect(pages.length).toBeGreaterThan(1);
      for (const page of pages) {
        expect(page).toMatchObject(PAPERS[paper]);
        const lengths = page.lines.filter(({ y1, y2 }) => y1 === y2).map(({ x1, x2 }) => x2 - x1);
        expect(lengths).toContain(PROOF_MM);
        // Nearer to the edge many printers do not print.
        for (const { x1, x2, y1, y2 } of page.lines) {
          expect(Math.min(x1, x2, y1, y2)).toBeGreaterThanOrEqual(8);
          expect(Math.max(x1, x2)).toBeLessThanOrEqual(page.widthMm - 8);
          expect(Math.max(y1, y2)).toBeLessThanOrEqual(page.heightMm - 8);
        }
        for (const { x, y } of page.texts) {
          expect(x).toBeLessThanOrEqual(page.widthMm - 8);
          expect(y).toBeLessThanOrEqual(page.heightMm - 8);
        }
      }
      const headings = pages.flatMap(({ texts }) => texts.map(({ text }) => text));
      // Every block once: three sides and the clicks, each level and upright.
      for (const name of ['Up', 'Down', 'Sideways']) {
        expect(headings.filter((text) => text === `${name}, back level`)).toHaveLength(1);
      }
      expect(headings).toContain('Turned to 0°, 180°, back level');
      expect(headings).toContain('Turned to 90°, 270°, back upright');
      expect(headings).toContain('Turned to 30°, 150°, 210°, 330°, back level');
    }
  });

  it('as SVG a user unit is a millimetre, and names are no markup', () => {
    const svg = sheetSvg(
      limitsStrip({
        ...newStation('check'),
        lens: { ...newStation('check').lens, name: 'Shift <24> & "co"' },
      })[0]!,
    );
    const [, width, box] = /width="([\d.]+)mm".*viewBox="0 0 ([\d.]+) /.exec(svg)!;
    expect(width).toBe(box);
    expect(svg).toContain('Shift &lt;24&gt; &amp; &quot;co&quot;');
    const proof = /<line x1="10" y1="([\d.]+)" x2="110" y2="\1"/.exec(svg);
    expect(proof).not.toBeNull();
  });

  it('a lens that covers nothing says so instead of drawing it', () => {
    const small: Station = {
      ...newStation('check'),
      lens: { ...newStation('check').lens, circle: [{ f_number: 3.5, diameter_mm: 30 }] },
    };
    const texts = limitsStrip(small).flatMap((page) => page.texts);
    expect(texts.filter(({ text }) => text === 'not covered').length).toBe(42);
  });
});

const MM = 25.4 / 72;

/** What a PDF writes and draws, read by another library from its own operators. */
async function streamsOf(bytes: Uint8Array): Promise<string[]> {
  const pdf = await PDFDocument.load(bytes);
  return pdf.context.enumerateIndirectObjects().flatMap(([, object]) => {
    if (!(object instanceof PDFRawStream)) return [];
    const filtered = object.dict.get(PDFName.of('Filter')) !== undefined;
    const text = filtered ? inflateSync(object.contents) : Buffer.from(object.contents);
    return [text.toString('latin1')];
  });
}

/** Straight lines a page draws, in mm. */
async function linesOf(bytes: Uint8Array): Promise<{ length: number; widthMm: number }[]> {
  const found: { length: number; widthMm: number }[] = [];
  for (const text of await streamsOf(bytes)) {
    const line = /([\d.]+) w\n([\d.-]+) ([\d.-]+) m\n([\d.-]+) ([\d.-]+) l\nS/g;
    for (const [, width, x1, y1, x2, y2] of text.matchAll(line)) {
      found.push({
        length: Math.hypot(Number(x2) - Number(x1), Number(y2) - Number(y1)) * MM,
        widthMm: Number(width) * MM,
      });
    }
  }
  return found;
}

const named = (name: string): Station => {
  const station = newStation('check');
  return { ...station, lens: { ...station.lens, name } };
};

describe('the strip as PDF', () => {
  const [sheet] = limitsStrip(newStation('check')) as [Sheet];

  it('measures true: the line of 100 mm is 100 mm to 0.1 %, the page the size of the sheet', async () => {
    const { bytes } = await sheetPdf([sheet], FACES);
    const pdf = await PDFDocument.load(bytes);
    const page = pdf.getPage(0);
    expect(page.getWidth() * MM).toBeCloseTo(sheet.widthMm, 4);
    expect(page.getHeight() * MM).toBeCloseTo(sheet.heightMm, 4);
    const asked = pdf.catalog.lookup(PDFName.of('ViewerPreferences'), PDFDict);
    expect(asked.get(PDFName.of('PrintScaling'))).toBe(PDFName.of('None'));
    const lines = await linesOf(bytes);
    expect(lines).toHaveLength(sheet.lines.length);
    expect(lines.filter(({ length }) => Math.abs(length - PROOF_MM) < 0.1)).toHaveLength(1);
    sheet.lines.forEach(({ x1, x2, y1, y2, strokeMm }, i) => {
      expect(lines[i]!.length).toBeCloseTo(Math.hypot(x2 - x1, y2 - y1), 4);
      expect(lines[i]!.widthMm).toBeCloseTo(strokeMm, 4);
    });
  });

  it('has the letters of its names in it, whatever marks they carry', async () => {
    const { bytes, missing } = await sheetPdf(limitsStrip(named('Łódź Übergang − Việt')), FACES);
    expect(missing).toBe('');
    // What a reader copies out of it: each code of the embedded typefaces with its letter.
    const maps = (await streamsOf(bytes)).filter((text) => text.includes('beginbfrange')).join('');
    for (const letter of 'ŁódźÜ−ệ') {
      const code = letter.codePointAt(0)!.toString(16).padStart(4, '0');
      expect([letter, maps.includes(`<${code}>`)]).toEqual([letter, true]);
    }
  });

  it('names the letters that the typeface does not have', async () => {
    const { missing } = await sheetPdf(limitsStrip(named('Shift 写真 写')), FACES);
    expect(missing).toBe('写真');
  });
});
