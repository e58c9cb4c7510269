import {
  distanceMarks,
  drawnTo,
  newStation,
  parseStation,
  stopMarks,
  type Station,
} from '@gangway/station';
import { bedTapes, PAPERS, PROOF_MM, sheetPdf, sheetSvg, type Sheet } from '../src/index.js';
import { FACE, longestRun, shown } from './read.js';

const station = (over: object): Station => {
  const read = parseStation({
    ...newStation('Tape'),
    lens: {
      name: 'View 210 f/5.6',
      focal_length_mm: 210,
      f_min: 5.6,
      f_max: 64,
      flange_focal_mm: 203,
      circle: [{ f_number: 22, diameter_mm: 300 }],
    },
    chain: [{ kind: 'view_camera', name: 'Field camera', bellows_min_mm: 80, bellows_max_mm: 380 }],
    aperture: 22,
    ...over,
  });
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.value;
};

const VIEW = station({});

/** Upright strokes of a sheet at a place along it. */
const strokes = ({ lines }: Sheet) =>
  lines.filter(({ x1, x2 }) => Math.abs(x1 - x2) < 1e-9).map(({ x1, y1 }) => ({ x: x1, y: y1 }));

describe('tapes for the bed', () => {
  const sheets = bedTapes(VIEW);
  const [sheet] = sheets as [Sheet];

  it('have a mark for each third of a stop and each distance, as far from infinity as the standard stands', () => {
    const zero = sheet.texts.find(({ text }) => text === '∞')!.x;
    const first = strokes(sheet).map(({ x }) => x - zero);
    for (const { extensionMm } of [...stopMarks(VIEW), ...distanceMarks(VIEW)]) {
      expect(first.some((x) => Math.abs(x - extensionMm) < 1e-6)).toBe(true);
    }
    // Worked by hand: a third of a stop is 210 (2^(1/6) − 1) = 25.7 mm out.
    expect(stopMarks(VIEW)[0]!.extensionMm).toBeCloseTo(210 * (2 ** (1 / 6) - 1), 9);
  });

  it('printed, the proof line and the way to a mark measure true to a tenth of a per cent', async () => {
    const { bytes } = await sheetPdf([sheet], FACE);
    const [page] = await shown(bytes);
    // The reader shows whole pixels: what a millimetre is there, by the width of the paper.
    const pxPerMm = page!.widthPx / PAPERS.A4.widthMm;
    const proof = sheet.lines.find(
      ({ x1, x2, y1, y2 }) => y1 === y2 && Math.abs(x2 - x1 - PROOF_MM) < 1e-9,
    )!;
    const { length } = longestRun(page!, Math.round(proof.y1 * pxPerMm));
    // A line is drawn to half its strokes’ width past its ends.
    const ownMm = PROOF_MM + 0.3;
    expect(Math.abs(length / pxPerMm / ownMm - 1)).toBeLessThan(0.001);
    // From the mark of infinity to that of a whole stop, in pixels.
    const zero = sheet.texts.find(({ text }) => text === '∞')!.x;
    const stop = stopMarks(VIEW)[2]!.extensionMm;
    const row = strokes(sheet).find(({ x }) => Math.abs(x - zero - stop) < 1e-6)!;
    const y = Math.round((row.y - 1.5) * pxPerMm);
    // The middle of a stroke, by how dark each pixel is.
    const middle = (mm: number): number => {
      const at = Math.round(mm * pxPerMm);
      let [weight, sum] = [0, 0];
      for (let x = at - 5; x <= at + 5; x++) {
        const dark = 255 - page!.pixels[4 * (y * page!.widthPx + x)]!;
        weight += dark;
        sum += dark * (x + 0.5);
      }
      return sum / weight / pxPerMm;
    };
    expect(Math.abs((middle(zero + stop) - middle(zero)) / stop - 1)).toBeLessThan(0.001);
  });

  it('a long draw comes in pieces that join, every millimetre on one of them', () => {
    const long = station({
      chain: [{ kind: 'view_camera', bellows_min_mm: 80, bellows_max_mm: 700 }],
    });
    const pages = bedTapes(long);
    const said = pages.flatMap(({ texts }) => texts.map(({ text }) => text));
    expect(said.filter((text) => /piece \d of 3/.test(text))).toHaveLength(6);
    for (const page of pages) {
      for (const { x1, x2, y1, y2 } of page.lines) {
        expect(Math.min(x1, x2, y1, y2)).toBeGreaterThanOrEqual(8);
        expect(Math.max(x1, x2)).toBeLessThanOrEqual(page.widthMm - 4);
        expect(Math.max(y1, y2)).toBeLessThanOrEqual(page.heightMm - 4);
      }
    }
    const tens = said.filter((text) => /^\d+$/.test(text)).map(Number);
    // The draw runs from 203 mm to 700.
    for (let draw = 210; draw <= 700; draw += 10) expect(tens).toContain(draw);
  });

  it('a lens that is not given its flange focal distance says what was taken', () => {
    const { flange_focal_mm: _, ...lens } = VIEW.lens;
    const said = bedTapes(station({ lens }))[0]!.texts.map(({ text }) => text);
    expect(said.some((text) => text.includes('nobody gave it'))).toBe(true);
    expect(sheet.texts.some(({ text }) => text.includes('nobody gave it'))).toBe(false);
  });

  it('a rig that does not reach infinity is laid by its own end', () => {
    const short = station({
      chain: [{ kind: 'view_camera', bellows_min_mm: 230, bellows_max_mm: 380 }],
    });
    const [page] = bedTapes(short) as [Sheet];
    expect(page.texts.some(({ text }) => text.includes('does not reach infinity'))).toBe(true);
    expect(page.texts.some(({ text }) => text === '∞')).toBe(false);
    expect(drawnTo(short, 0).drawMm).toBeCloseTo(203, 9);
  });

  it('as SVG a user unit is a millimetre, and a lens on its own ring has none', () => {
    expect(sheetSvg(sheet)).toContain('viewBox="0 0 210 297"');
    expect(bedTapes(newStation('ring'))).toEqual([]);
  });
});
