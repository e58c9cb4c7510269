import { fStop, trimmed } from '../words/format.js';
import type { Station } from '../document/station.js';
import { limitsTable, type LimitsTable } from './limits-table.js';

/** A drawing in true millimetres, origin at the top left, y down: for paper, not for the screen. */
export interface Sheet {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly title: string;
  readonly lines: readonly StripLine[];
  readonly texts: readonly StripText[];
}

export interface StripLine {
  readonly x1: number;
  readonly y1: number;
  readonly x2: number;
  readonly y2: number;
  readonly strokeMm: number;
}

export interface StripText {
  readonly x: number;
  readonly y: number;
  readonly text: string;
  readonly sizeMm: number;
  readonly anchor: 'start' | 'middle' | 'end';
}

/** Length of the line that proves the print is true. */
export const PROOF_MM = 100;

const MARGIN = 8;
const LABEL = 15;
const ROW = 4.2;

/**
 * A strip to cut out and tape on the gear: for each stop a line as long as the movement goes,
 * over a scale in millimetres. One block for rise, one for shift, each level and upright.
 */
export function limitsStrip(station: Station, table: LimitsTable = limitsTable(station)): Sheet {
  const lines: StripLine[] = [];
  const texts: StripText[] = [];
  const blocks = [
    { name: 'Up, back level', way: 'level', side: 'up' },
    { name: 'Up, back upright', way: 'upright', side: 'up' },
    { name: 'Down, back level', way: 'level', side: 'down' },
    { name: 'Down, back upright', way: 'upright', side: 'down' },
    { name: 'Sideways, back level', way: 'level', side: 'right' },
    { name: 'Sideways, back upright', way: 'upright', side: 'right' },
  ] as const;
  const longest = Math.max(
    10,
    ...table.rows.flatMap((row) => blocks.map(({ way, side }) => row[way][side].mm ?? 0)),
  );
  // Paper ends somewhere; a movement longer than this is cut and says so.
  const most = Math.min(150, Math.ceil(longest / 5) * 5);
  const text = (
    x: number,
    y: number,
    words: string,
    sizeMm = 2.4,
    anchor: StripText['anchor'] = 'start',
  ): void => {
    texts.push({ x, y, text: words, sizeMm, anchor });
  };
  const rule = (x1: number, y1: number, x2: number, y2: number, strokeMm = 0.15): void => {
    lines.push({ x1, y1, x2, y2, strokeMm });
  };

  const name = station.lens.name ?? `${trimmed(station.lens.focal_length_mm, 1)} mm`;
  const back = `${trimmed(station.back.width_mm, 1)} × ${trimmed(station.back.height_mm, 1)} mm`;
  const focus = table.focusM === null ? 'infinity' : `${trimmed(table.focusM, 2)} m`;
  text(MARGIN, MARGIN + 2, `${name} on ${back}`, 3.4);
  text(MARGIN, MARGIN + 6, `Lens straight, one movement at a time, focused at ${focus}.`);
  let y = MARGIN + 12;
  rule(MARGIN, y, MARGIN + PROOF_MM, y, 0.3);
  rule(MARGIN, y - 1.5, MARGIN, y + 1.5, 0.3);
  rule(MARGIN + PROOF_MM, y - 1.5, MARGIN + PROOF_MM, y + 1.5, 0.3);
  text(
    MARGIN,
    y + 4,
    `This line is ${PROOF_MM} mm long. Print at 100 %, not fitted to the page; measure it first.`,
  );
  y += 10;
  for (const { name: heading, way, side } of blocks) {
    const x0 = MARGIN + LABEL;
    text(MARGIN, y, heading, 2.6);
    y += 6;
    rule(x0, y, x0 + most, y);
    for (let mm = 0; mm <= most; mm++) {
      const size = mm % 10 === 0 ? 2.4 : mm % 5 === 0 ? 1.8 : 1;
      rule(x0 + mm, y, x0 + mm, y - size, mm % 5 === 0 ? 0.2 : 0.12);
      if (mm % 10 === 0 && mm > 0) text(x0 + mm, y - 2.8, String(mm), 1.9, 'middle');
    }
    for (const row of table.rows) {
      y += ROW;
      const { mm, by } = row[way][side];
      text(x0 - 1.5, y + 0.8, fStop(row.fNumber), 2.4, 'end');
      if (mm === null) {
        text(x0, y + 0.8, 'not covered', 2.2);
        continue;
      }
      const shown = Math.min(mm, most);
      rule(x0, y, x0 + shown, y, 0.6);
      rule(x0 + shown, y - 1.2, x0 + shown, y + 1.2, 0.3);
      const end =
        mm > most
          ? `goes on to ${Number.isFinite(mm) ? trimmed(mm, 1) : 'no end'}`
          : `${trimmed(mm, 1)} ${by}`;
      text(x0 + shown + 1.2, y + 0.8, end, 2);
    }
    y += 7;
  }
  return {
    widthMm: Math.max(MARGIN * 2 + PROOF_MM, MARGIN * 2 + LABEL + most + 24),
    heightMm: y + 2,
    title: `How far ${name} moves`,
    lines,
    texts,
  };
}

const escaped = (text: string): string =>
  text.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!);

const n = (value: number): string => String(Number(value.toFixed(3)));

/** The strip as a drawing whose user unit is a millimetre. */
export function stripSvg(sheet: Sheet): string {
  const lines = sheet.lines.map(
    ({ x1, y1, x2, y2, strokeMm }) =>
      `<line x1="${n(x1)}" y1="${n(y1)}" x2="${n(x2)}" y2="${n(y2)}" stroke-width="${n(strokeMm)}"/>`,
  );
  const texts = sheet.texts.map(
    ({ x, y, text, sizeMm, anchor }) =>
      `<text x="${n(x)}" y="${n(y)}" font-size="${n(sizeMm)}" text-anchor="${anchor}">${escaped(text)}</text>`,
  );
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${n(sheet.widthMm)}mm" height="${n(sheet.heightMm)}mm" viewBox="0 0 ${n(sheet.widthMm)} ${n(sheet.heightMm)}">`,
    `<title>${escaped(sheet.title)}</title>`,
    `<rect width="100%" height="100%" fill="white"/>`,
    `<g stroke="black">${lines.join('')}</g>`,
    `<g fill="black" font-family="sans-serif">${texts.join('')}</g>`,
    '</svg>',
    '',
  ].join('\n');
}
