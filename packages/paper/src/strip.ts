import {
  atMost,
  fStop,
  limitsTable,
  trimmed,
  type LimitsTable,
  type Station,
} from '@gangway/station';
import type { Sheet, SheetLine, SheetText } from './sheet.js';

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
  const lines: SheetLine[] = [];
  const texts: SheetText[] = [];
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
    anchor: SheetText['anchor'] = 'start',
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
          : `${trimmed(atMost(mm, 1), 1)} ${by}`;
      text(x0 + shown + 1.2, y + 0.8, row.given ? end : `${end}, assumed`, 2);
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
