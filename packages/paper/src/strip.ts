import {
  atMost,
  clickWords,
  fStop,
  type LimitsTable,
  limitsTable,
  measuredFor,
  measurementsOf,
  type Station,
  trimmed,
} from '@gangway/station';
import { draftedOn, proofLine, type Drafted } from './drafted.js';
import { MARGIN_MM, PAPERS, type Paper } from './papers.js';
import type { Sheet } from './sheet.js';

const MARGIN = MARGIN_MM;
const LABEL = 15;
const ROW = 4;
/** What a block takes besides its rows, and the head of a page. */
const BLOCK_MM = 13;
const HEAD_MM = 24;
/** Room after the longest line for what it is told by. */
const TOLD_MM = 30;

/** One movement in one way of the back: a line a stop. */
interface Block {
  readonly name: string;
  readonly limits: readonly { readonly mm: number | null; readonly by: string }[];
}

const SIDES = [
  ['Up', 'up'],
  ['Down', 'down'],
  ['Sideways', 'right'],
] as const;
const WAYS = ['level', 'upright'] as const;

const blocksOf = ({ rows, clicks }: LimitsTable): Block[] => [
  ...SIDES.flatMap(([name, side]) =>
    WAYS.map((way) => ({
      name: `${name}, back ${way}`,
      limits: rows.map((row) => row[way][side]),
    })),
  ),
  ...clicks.flatMap((click) =>
    WAYS.map((way) => ({
      name: `Turned to ${clickWords(click)}, back ${way}`,
      limits: click.rows.map((row) => row[way]),
    })),
  ),
];

/**
 * Strips to cut out and tape on the gear: for each stop a line as long as the movement goes, over
 * a scale in millimetres. As many pages as they take; each has its proof line, and no block is
 * parted between two.
 */
export function limitsStrip(
  station: Station,
  paper: Paper = 'A4',
  table: LimitsTable = limitsTable(station),
): Sheet[] {
  const blocks = blocksOf(table);
  const { widthMm, heightMm } = PAPERS[paper];
  const longest = Math.max(10, ...blocks.flatMap(({ limits }) => limits.map(({ mm }) => mm ?? 0)));
  // Paper ends somewhere; a movement longer than this is cut and says so.
  const room = widthMm - 2 * MARGIN - LABEL - TOLD_MM;
  const most = Math.min(5 * Math.floor(room / 5), Math.ceil(longest / 5) * 5);
  const tall = BLOCK_MM + table.rows.length * ROW;
  const each = Math.max(1, Math.floor((heightMm - 2 * MARGIN - HEAD_MM) / tall));
  const count = Math.ceil(blocks.length / each);
  const name = station.lens.name ?? `${trimmed(station.lens.focal_length_mm, 1)} mm`;
  return Array.from({ length: count }, (_, i) => {
    const page = draftedOn(PAPERS[paper], `How far ${name} moves`);
    head(page, station, table, name, count > 1 ? `, page ${i + 1} of ${count}` : '');
    blocks.slice(i * each, (i + 1) * each).forEach((block, k) => {
      drawBlock(page, block, table, MARGIN + HEAD_MM + k * tall, most);
    });
    return page.sheet;
  });
}

function head(
  page: Drafted,
  station: Station,
  table: LimitsTable,
  name: string,
  which: string,
): void {
  const { back } = station;
  const size = `${trimmed(back.width_mm, 1)} × ${trimmed(back.height_mm, 1)} mm`;
  const { text } = page;
  const focus = table.focusM === null ? 'infinity' : `${trimmed(table.focusM, 2)} m`;
  text(MARGIN, MARGIN + 2, `${name} on ${size}${which}`, 3.4);
  const own = measuredFor(measurementsOf(station), ['circle', 'core']);
  const told = own.length > 0 ? ' By the lens as it was measured.' : '';
  text(MARGIN, MARGIN + 6, `Lens straight, one movement at a time, focused at ${focus}.${told}`);
  proofLine(page, MARGIN + 12);
}

function drawBlock(
  { text, rule }: Drafted,
  { name, limits }: Block,
  { rows }: LimitsTable,
  top: number,
  most: number,
): void {
  const x0 = MARGIN + LABEL;
  text(MARGIN, top, name, 2.6);
  let y = top + 6;
  rule(x0, y, x0 + most, y);
  for (let mm = 0; mm <= most; mm++) {
    const size = mm % 10 === 0 ? 2.4 : mm % 5 === 0 ? 1.8 : 1;
    rule(x0 + mm, y, x0 + mm, y - size, mm % 5 === 0 ? 0.2 : 0.12);
    if (mm % 10 === 0 && mm > 0) text(x0 + mm, y - 2.8, String(mm), 1.9, 'middle');
  }
  rows.forEach((row, i) => {
    y += ROW;
    const { mm, by } = limits[i]!;
    text(x0 - 1.5, y + 0.8, fStop(row.fNumber), 2.4, 'end');
    if (mm === null) {
      text(x0, y + 0.8, 'not covered', 2.2);
      return;
    }
    const shown = Math.min(mm, most);
    rule(x0, y, x0 + shown, y, 0.6);
    rule(x0 + shown, y - 1.2, x0 + shown, y + 1.2, 0.3);
    const end =
      mm > most
        ? `goes on to ${Number.isFinite(mm) ? trimmed(mm, 1) : 'no end'}`
        : `${trimmed(atMost(mm, 1), 1)} ${by}`;
    text(x0 + shown + 1.2, y + 0.8, row.given ? end : `${end}, assumed`, 2);
  });
}
