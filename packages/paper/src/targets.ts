import { draftedOn, proofLine, type Drafted } from './drafted.js';
import { MARGIN_MM, PAPERS, type Paper } from './papers.js';
import type { Sheet } from './sheet.js';

/** Charts to print for measuring a lens, true to scale. */

const radians = (deg: number): number => (deg * Math.PI) / 180;

/** Slant of the chart's edges: enough for every place between two pixels, and well below the diagonal. */
export const SLANT_DEG = 5;

/** A square about a place, turned clockwise. */
function square({ shape }: Drafted, x: number, y: number, side: number, deg: number): void {
  const [c, s] = [(side / 2) * Math.cos(radians(deg)), (side / 2) * Math.sin(radians(deg))];
  const points = [[-c + s, -c - s], [c + s, -c + s], [c - s, c + s], [-c - s, c - s]].map(([dx, dy]) => [x + dx!, y + dy!] as const); // prettier-ignore
  shape({ points, closed: true, fill: 0 });
}

function head(page: Drafted, title: string, lines: readonly string[]): number {
  page.text(MARGIN_MM, MARGIN_MM + 3, title, 4.2, 'start', { strong: true });
  lines.forEach((line, i) => page.text(MARGIN_MM, MARGIN_MM + 9 + 4.4 * i, line, 2.9));
  const below = MARGIN_MM + 9 + 4.4 * lines.length + 2;
  proofLine(page, below);
  return below + 10;
}

/** Black squares with slanted edges, large and small. */
export function edgeChart(paper: Paper = 'A4'): Sheet {
  const size = PAPERS[paper];
  const page = draftedOn(size, 'Edge chart');
  const top = head(page, 'Edge chart', [
    `Every edge is slanted by ${SLANT_DEG}°: hang it upright, flat, square before the camera.`,
    'Stand so far off that a square is 60 pixels wide or more in the picture. Light it evenly from both sides.',
    'Put it in the middle of the frame, at an edge and in a corner, and focus anew each time.',
  ]);
  const across = (size.widthMm - 2 * MARGIN_MM) / 2;
  const high = (size.heightMm - MARGIN_MM - top) / 3;
  const side = 0.62 * Math.min(across, high);
  for (let row = 0; row < 3; row++) {
    for (let column = 0; column < 2; column++) {
      const [x, y] = [MARGIN_MM + (column + 0.5) * across, top + (row + 0.5) * high];
      square(page, x, y, side, SLANT_DEG);
      // A small one in reach, for long lenses and close work.
      square(page, x + 0.44 * across, y + 0.4 * high, side / 5, SLANT_DEG);
    }
  }
  return page.sheet;
}

/** Longest of the ruler, mm to each side of its middle. */
const RULER_MM = 110;

/** Fine lines all over for the zero, and a ruler that is looked at from 45°. */
export function focusRuler(paper: Paper = 'A4'): Sheet {
  const size = PAPERS[paper];
  const page = draftedOn(size, 'Focus ruler and fine print');
  const { text, rule, shape } = page;
  const top = head(page, 'Focus ruler and fine print', [
    'For the zero of a tilt: hang it upright and square before the camera, fill the frame with it, widest stop.',
    'For focus: lay it away from the camera, look down on it from 45°, focus on the middle line.',
    'What is sharp of the ruler lies that many millimetres before or behind; a depth is 0.71 of what it reads.',
  ]);
  const middle = size.widthMm / 2;
  const centre = top + (size.heightMm - MARGIN_MM - top) / 2;
  const reach = Math.min(RULER_MM, (size.heightMm - MARGIN_MM - top) / 2 - 4);
  shape({ points: [[middle - 30, centre - 1], [middle + 30, centre - 1], [middle + 30, centre + 1], [middle - 30, centre + 1]], closed: true, fill: 0 }); // prettier-ignore
  rule(middle, centre - reach, middle, centre + reach, 0.2);
  for (let at = -Math.floor(reach); at <= reach; at++) {
    const long = at % 10 === 0 ? 12 : at % 5 === 0 ? 8 : 5;
    rule(middle, centre + at, middle + long, centre + at, 0.12);
    rule(middle, centre + at, middle - long, centre + at, 0.12);
    if (at % 10 === 0 && at !== 0) {
      text(middle + 14, centre + at + 0.9, `${Math.abs(at)} ${at < 0 ? 'behind' : 'before'}`, 2.6);
    }
  }
  fineLines(page, MARGIN_MM, middle - 34, top, size.heightMm - MARGIN_MM);
  fineLines(page, middle + 44, size.widthMm - MARGIN_MM, top, size.heightMm - MARGIN_MM);
  return page.sheet;
}

/** Bundles of lines from fine to coarse, both ways: something sharp at any distance. */
function fineLines({ rule }: Drafted, left: number, right: number, top: number, foot: number): void {
  const cell = 9;
  const widths = [0.1, 0.14, 0.2, 0.28, 0.4, 0.56];
  let n = 0;
  for (let y = top; y + cell <= foot; y += cell + 1) {
    for (let x = left; x + cell <= right; x += cell + 1, n++) {
      const width = widths[(n * 5) % widths.length]!;
      for (let at = 0; at < cell; at += 2 * width) {
        if (n % 2 === 0) rule(x + at, y, x + at, y + cell - 1, width);
        else rule(x, y + at, x + cell - 1, y + at, width);
      }
    }
  }
} // prettier-ignore

/** How to shoot the white, with room to write down where each picture was taken. */
export function flatNote(lines: readonly string[], paper: Paper = 'A4'): Sheet {
  const size = PAPERS[paper];
  const page = draftedOn(size, 'Flat-field note');
  const { text, rule } = page;
  const top = head(page, 'Flat field: the light of a lens out to its end', lines);
  const columns = [['Picture', 40], ['f-number', 26], ['Rise, mm (up +)', 36], ['Shift, mm (right +)', 40], ['Note', 40]] as const; // prettier-ignore
  let x = MARGIN_MM;
  const rows = Math.floor((size.heightMm - MARGIN_MM - top - 8) / 9);
  for (const [name, width] of columns) {
    text(x + 1, top + 5, name, 2.8, 'start', { strong: true });
    rule(x, top, x, top + 7 + 9 * rows, 0.15);
    x += width;
  }
  const end = Math.min(x, size.widthMm - MARGIN_MM);
  for (let i = 0; i <= rows; i++) rule(MARGIN_MM, top + 7 + 9 * i, end, top + 7 + 9 * i, 0.15);
  rule(MARGIN_MM, top, end, top, 0.15);
  rule(end, top, end, top + 7 + 9 * rows, 0.15);
  return page.sheet;
}
