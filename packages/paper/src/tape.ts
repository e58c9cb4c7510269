import {
  distance,
  distanceMarks,
  drawnTo,
  drawRange,
  fixed,
  hasBed,
  mm,
  ratioMarks,
  ratioSaid,
  stopMarks,
  trimmed,
  type DrawPoint,
  type Station,
  type Units,
} from '@gangway/station';
import { draftedOn, proofLine, type Drafted } from './drafted.js';
import { MARGIN_MM, PAPERS, type Paper } from './papers.js';
import type { Sheet } from './sheet.js';

/** Longest piece of a tape that fits across the paper, in whole centimetres. */
const pieceMm = (paper: Paper): number =>
  10 * Math.floor((PAPERS[paper].widthMm - 2 * MARGIN_MM - 8) / 10);

/** Marks nearer to the last one than this are left without their word. */
const WORD_MM = 6.8;
const HEAD_MM = 30;

/** A row of marks: what they are of, how each is told. */
interface Marks {
  readonly name: string;
  readonly points: readonly DrawPoint[];
  readonly said: (point: DrawPoint) => string;
}

interface Tape {
  readonly name: string;
  readonly rows: readonly Marks[];
  /** Lettered along the millimetres; of what the scale counts. */
  readonly scale: string;
  /** What stands at the tape’s own zero. */
  readonly zeroMm: number;
}

/** What the draw costs and gives, to stick on the bed beside the front standard. */
const bellowsTape = (station: Station): Tape => ({
  name: 'Bellows: stops to add, magnification, draw',
  rows: [
    { name: 'stops', points: stopMarks(station), said: ({ stops }) => `+${fixed(stops, 1)}` },
    {
      name: '',
      points: ratioMarks(station),
      said: ({ magnification }) => ratioSaid(magnification),
    },
  ],
  scale: 'draw',
  zeroMm: drawnTo(station, 0).drawMm ?? 0,
});

/** Where the standard stands for each distance. */
const focusTape = (station: Station, units: Units): Tape => ({
  name: 'Focus: distance from the film or sensor',
  rows: [
    {
      name: '',
      points: distanceMarks(station, units),
      said: ({ distanceM }) => distance(distanceM, units),
    },
  ],
  scale: 'from infinity',
  zeroMm: 0,
});

/**
 * Tapes to cut out and stick on the bed, in true length: one for light, one for focus. A long one
 * comes in pieces that are laid end to end. Empty where the standards run on no bed.
 */
export function bedTapes(station: Station, paper: Paper = 'A4', units: Units = 'metric'): Sheet[] {
  if (!hasBed(station)) return [];
  const { least, greatest } = drawRange(station);
  const [from, to] = [drawnTo(station, least).extensionMm, drawnTo(station, greatest).extensionMm];
  const each = pieceMm(paper);
  const count = Math.max(1, Math.ceil((to - from) / each));
  const pieces = [bellowsTape(station), focusTape(station, units)].flatMap((tape) =>
    Array.from({ length: count }, (_, i) => ({ tape, i })),
  );
  const tall = 40;
  const perPage = Math.floor((PAPERS[paper].heightMm - 2 * MARGIN_MM - HEAD_MM) / tall);
  const pages = Math.ceil(pieces.length / perPage);
  const name = station.lens.name ?? `${trimmed(station.lens.focal_length_mm, 1)} mm`;
  return Array.from({ length: pages }, (_, at) => {
    const page = draftedOn(PAPERS[paper], `Tapes for ${name}`);
    head(page, station, name, pages > 1 ? `, page ${at + 1} of ${pages}` : '');
    pieces.slice(at * perPage, (at + 1) * perPage).forEach(({ tape, i }, k) => {
      const start = from + i * each;
      drawPiece(page, tape, {
        top: MARGIN_MM + HEAD_MM + k * tall,
        start,
        end: Math.min(to, start + each),
        which: count > 1 ? `, piece ${i + 1} of ${count}` : '',
        joins: i + 1 < count,
      });
    });
    return page.sheet;
  });
}

function head(page: Drafted, station: Station, name: string, which: string): void {
  const camera = station.chain.find(({ kind }) => kind === 'view_camera');
  page.text(
    MARGIN_MM,
    MARGIN_MM + 2,
    `${name} on ${camera?.name ?? 'the bellows camera'}${which}`,
    3.4,
    'start',
    { strong: true },
  );
  const { least } = drawRange(station);
  const lay =
    least < 1e-4
      ? 'Rack to infinity, lay the mark ∞ under the edge of the front standard, stick the tape down.'
      : `This rig does not reach infinity: rack all the way in, lay the beginning of the tape, ${mm(drawnTo(station, least).extensionMm)} past infinity, under the edge of the front standard.`;
  page.text(MARGIN_MM, MARGIN_MM + 6.5, `Lens and back straight. ${lay}`);
  const assumed =
    station.lens.flange_focal_mm === undefined && station.lens.register_mm === undefined;
  if (assumed) {
    page.text(
      MARGIN_MM,
      MARGIN_MM + 10.5,
      'Draw: the flange focal distance is taken to be the focal length, nobody gave it. Distances and stops do not rest on it.',
    );
  }
  proofLine(page, MARGIN_MM + 17);
}

interface Piece {
  readonly top: number;
  readonly start: number;
  readonly end: number;
  readonly which: string;
  readonly joins: boolean;
}

const X0 = MARGIN_MM + 4;

function drawPiece(page: Drafted, tape: Tape, { top, start, end, which, joins }: Piece): void {
  const { text, rule } = page;
  const length = end - start;
  const x = (extensionMm: number): number => X0 + extensionMm - start;
  text(MARGIN_MM, top, `${tape.name}${which}`, 2.6);
  const [upper, lower] = [top + 3, top + 23];
  const middle = top + 13;
  for (const y of [upper, lower]) rule(X0, y, X0 + length, y, 0.2);
  for (const at of [X0, X0 + length]) rule(at, upper, at, lower, 0.2);
  if (joins) text(X0 + length + 1, middle + 0.8, '→', 2.4);
  tape.rows.forEach((row, i) => {
    const base = tape.rows.length === 1 ? middle : upper + 7 * (i + 1);
    marksOn(page, row, { x, base, start, end });
  });
  const first = Math.ceil(start + tape.zeroMm - 1e-9);
  for (let at = first; at <= end + tape.zeroMm + 1e-9; at++) {
    const here = x(at - tape.zeroMm);
    rule(here, lower, here, lower - (at % 10 === 0 ? 2.4 : at % 5 === 0 ? 1.8 : 1), 0.12);
    if (at % 10 === 0) text(here, lower - 3, String(at), 1.9, 'middle');
  }
  text(X0 + length, lower + 2.6, `${tape.scale}, mm`, 1.8, 'end', { grey: 0.35 });
  if (start <= 1e-9) {
    rule(x(0), upper, x(0), upper - 2, 0.4);
    text(x(0), lower + 3, '∞', 2.6, 'middle');
  }
}

function marksOn(
  { text, rule }: Drafted,
  { name, points, said }: Marks,
  { x, base, start, end }: { x: (mm: number) => number; base: number; start: number; end: number },
): void {
  let last = -Infinity;
  for (const point of points) {
    const { extensionMm } = point;
    if (extensionMm < start - 1e-9 || extensionMm > end + 1e-9) continue;
    rule(x(extensionMm), base, x(extensionMm), base - 3, 0.25);
    if (extensionMm - last < WORD_MM) continue;
    last = extensionMm;
    text(x(extensionMm) + 0.6, base - 0.6, said(point), 2.1);
  }
  const first = points.find(({ extensionMm }) => extensionMm >= start);
  if (name !== '' && first && first.extensionMm - start > WORD_MM)
    text(x(start) + 0.8, base - 0.6, name, 1.8, 'start', { grey: 0.35 });
}

/** How far the tape goes, in words. */
export const tapeReach = (station: Station): string => {
  const { least, greatest } = drawRange(station);
  const [from, to] = [drawnTo(station, least), drawnTo(station, greatest)];
  return mm(to.extensionMm - from.extensionMm, 0);
};
