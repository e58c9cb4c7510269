import {
  CARE_WORDS,
  cardOf,
  cardText,
  restsOnAssumed,
  restsOnMeasured,
  shortForm,
  type Card,
  type CardStep,
  type Station,
  type Units,
  assumedWhy,
  measuredWhy,
} from '@gangway/station';
import type { Box } from './clip.js';
import { codeShapes } from './code.js';
import { draftedOn, type Drafted } from './drafted.js';
import { flowed, wrapped, type Block } from './flow.js';
import { SIZES, type Size } from './papers.js';
import { circlePicture, finderPicture, planPicture } from './pictures.js';
import type { Sheet } from './sheet.js';
import type { Typeface } from './typeface.js';

/** How a card is set on each paper, mm. */
interface Setting {
  readonly margin: number;
  readonly columns: number;
  readonly gap: number;
  /** Of plain text; of figures; of the title. */
  readonly text: number;
  readonly figure: number;
  readonly title: number;
  readonly picture: number;
  readonly code: number;
}

const SETTINGS: Record<Size, Setting> = {
  A6: { margin: 6, columns: 1, gap: 0, text: 2.5, figure: 4.5, title: 4.4, picture: 23, code: 28 },
  A5: { margin: 8, columns: 1, gap: 0, text: 3.1, figure: 6, title: 5.6, picture: 38, code: 34 },
  A4: { margin: 10, columns: 2, gap: 8, text: 3.2, figure: 6.4, title: 6.4, picture: 52, code: 38 },
  Letter: {
    margin: 10,
    columns: 2,
    gap: 8,
    text: 3.2,
    figure: 6.4,
    title: 6.4,
    picture: 50,
    code: 38,
  },
};

export interface CardAsked {
  readonly station: Station;
  readonly size: Size;
  readonly units?: Units;
  /** Its job’s name, and its place in the day: “2 of 5”. */
  readonly job?: string;
  readonly place?: string;
}

const PARTS: Record<CardStep['part'], string> = {
  stand: 'Where to stand',
  rig: 'Rig',
  level: 'Level',
  meter: 'Meter',
  move: 'Movements',
  focus: 'Focus',
  stop: 'Stop',
  expose: 'Exposure',
  frames: 'Frames, in order',
  look: 'Before you leave',
};

/** A card as it is printed: as many pages as it takes, black on white. */
export function cardSheets(
  { station, size, units = 'metric', job, place }: CardAsked,
  face: Typeface,
): Sheet[] {
  const card = cardOf(station, units);
  const set = SETTINGS[size];
  const { widthMm, heightMm } = SIZES[size];
  const pages: Drafted[] = [];
  const width = (widthMm - 2 * set.margin - (set.columns - 1) * set.gap) / set.columns;
  const foot = heightMm - set.margin - 1.4 * set.text;
  const newPage = (): Drafted => {
    const page = draftedOn(SIZES[size], card.name);
    pages.push(page);
    return page;
  };
  const first = newPage();
  const top = heading(first, card, { station, job, place }, set, widthMm, face);
  const blocks = blocksOf(card, { station, units }, set, width, face);
  flowed(blocks, (index) => {
    const at = Math.floor(index / set.columns);
    while (pages.length <= at) newPage();
    const column = index % set.columns;
    return {
      page: pages[at]!,
      x: set.margin + column * (width + set.gap),
      top: at === 0 ? top : set.margin + set.text,
      bottom: foot,
    };
  });
  pages.forEach((page, i) => {
    const told = `${card.name}${pages.length > 1 ? `, page ${i + 1} of ${pages.length}` : ''}`;
    const [line = ''] = wrapped(told, widthMm - 2 * set.margin, set.text * 0.8, face);
    page.text(set.margin, heightMm - set.margin, line, set.text * 0.8, 'start', { grey: 0.35 });
  });
  return pages.map(({ sheet }) => sheet);
}

/** Title and the three drawings. @returns where the columns begin */
function heading(
  page: Drafted,
  card: Card,
  {
    station,
    job,
    place,
  }: Pick<CardAsked, 'station'> & { job: string | undefined; place: string | undefined },
  set: Setting,
  widthMm: number,
  face: Typeface,
): number {
  const { margin, text, title, picture } = set;
  const room = widthMm - 2 * margin;
  let y = margin;
  const over = [job, place].filter(Boolean).join(', ');
  if (over !== '') {
    y += text;
    page.text(margin, y, wrapped(over, room, text, face)[0] ?? '', text, 'start', { grey: 0.35 });
    y += 0.6 * text;
  }
  for (const line of wrapped(card.name, room, title, face, true).slice(0, 2)) {
    y += title;
    page.text(margin, y, line, title, 'start', { strong: true });
    y += 0.2 * title;
  }
  y += text;
  const gap = 3;
  const each = (room - 2 * gap) / 3;
  const drawings = [
    ['From above', planPicture],
    ['The picture', finderPicture],
    ['Circle', circlePicture],
  ] as const;
  drawings.forEach(([name, draw], i) => {
    const box: Box = { x: margin + i * (each + gap), y, width: each, height: picture };
    for (const shape of draw(station, box)) page.shape(shape);
    page.text(box.x, y + picture + 1.1 * text, name, text * 0.8, 'start', { grey: 0.35 });
  });
  return y + picture + 2.4 * text;
}

function blocksOf(
  card: Card,
  { station, units }: { station: Station; units: Units },
  set: Setting,
  width: number,
  face: Typeface,
): Block[] {
  const { text, code } = set;
  const words = (said: string, strong = false, grey?: number): Block => {
    const lines = wrapped(said, width, text, face, strong);
    return {
      heightMm: lines.length * 1.3 * text + 0.5 * text,
      draw: (page, x, y) =>
        lines.forEach((line, i) =>
          page.text(x, y + text + i * 1.3 * text, line, text, 'start', {
            strong,
            ...(grey === undefined ? {} : { grey }),
          }),
        ),
    };
  };
  const head = (said: string): Block => ({
    heightMm: 2.2 * text,
    withNext: true,
    draw: (page, x, y) => {
      page.text(x, y + 1.5 * text, said, text * 0.85, 'start', { grey: 0.35 });
      page.rule(x, y + 1.9 * text, x + width, y + 1.9 * text, 0.15);
    },
  });
  const settle = card.unsettled.stops;
  const blocks: Block[] =
    settle.length === 0
      ? []
      : [head('To settle before this can be shot'), ...settle.map((each) => words(each, true))];
  if (card.care.length > 0) {
    blocks.push(head('Take care'), ...card.care.map((each) => words(CARE_WORDS[each])));
  }
  let part: CardStep['part'] | null = null;
  for (const step of card.steps) {
    if (step.part !== part) {
      part = step.part;
      blocks.push(head(PARTS[part]));
    }
    blocks.push(stepBlock(card, step, set, width, face));
  }
  const { warnings } = card.unsettled;
  if (warnings.length > 0) blocks.push(head('Warnings'), ...warnings.map((each) => words(each)));
  if (card.assumed.length > 0) {
    blocks.push(
      head('A ring: rests on what nobody gave'),
      ...card.assumed.map((each) => words(assumedWhy(each))),
    );
  }
  if (card.measured.length > 0) {
    blocks.push(
      head('A filled ring: rests on what was measured'),
      ...card.measured.map((each) => words(measuredWhy(each))),
    );
  }
  const short = shortForm(station, units);
  const lines = short.flatMap((line, i) =>
    wrapped(line, width - code - 3, text, face, i === 0).map((each) => ({ each, strong: i === 0 })),
  );
  blocks.push(head('As text, for a phone; for a tag'), {
    heightMm: Math.max(code, lines.length * 1.3 * text) + text,
    draw: (page, x, y) => {
      for (const shape of codeShapes(cardText(station, units), x, y, code)) page.shape(shape);
      lines.forEach(({ each, strong }, i) =>
        page.text(x + code + 3, y + 1.6 * text + i * 1.3 * text, each, text, 'start', { strong }),
      );
    },
  });
  return blocks;
}

/** Room for the ring after a figure, as a share of its size. */
const RING = 0.55;

/** The open ring of what rests on a thing nobody gave. */
function ringAt(page: Drafted, x: number, y: number, r: number, filled: boolean): void {
  page.shape({
    points: Array.from({ length: 24 }, (_, i) => {
      const t = (2 * Math.PI * i) / 24;
      return [x + r * Math.cos(t), y + r * Math.sin(t)] as const;
    }),
    closed: true,
    strokeMm: 0.3,
    grey: 0.2,
    ...(filled ? { fill: 0.2 } : {}),
  });
}

/** A thing to do: a box to tick, what it is, and its figure large at the end of the line. */
function stepBlock(card: Card, step: CardStep, set: Setting, width: number, face: Typeface): Block {
  const { text, figure } = set;
  // After the figure, as on screen: a small ring, open where it is assumed, filled where measured.
  const filled = restsOnMeasured(card, step);
  const ringed = step.figure !== undefined && (filled || restsOnAssumed(card, step));
  const ring = ringed ? RING * figure : 0;
  const shown = step.figure ?? '';
  const indent = 1.7 * text;
  const full = width - indent;
  // A figure that would take more than half of the line stands under the words.
  const own = face.widthMm(shown, figure, true) + ring;
  const below = own > 0.55 * full;
  const size = below ? Math.min(figure, (figure * full) / Math.max(own, 1e-6)) : figure;
  const number = step.frame === undefined ? '' : `${step.frame + 1}  `;
  const said = `${number}${step.says}`;
  const lines = wrapped(said, below || shown === '' ? full : full - own - 2, text, face);
  const details = step.detail ? wrapped(step.detail, full, text * 0.88, face) : [];
  const line = 1.3 * text;
  const upper = Math.max(lines.length * line, below || shown === '' ? 0 : 1.05 * figure);
  const height = upper + (below ? 1.15 * size : 0) + details.length * line * 0.92 + 0.55 * text;
  return {
    heightMm: height,
    draw: (page, x, y) => {
      const side = 0.95 * text;
      const boxTop = y + 0.25 * text;
      page.shape({
        points: [
          [x, boxTop],
          [x + side, boxTop],
          [x + side, boxTop + side],
          [x, boxTop + side],
        ],
        closed: true,
        strokeMm: 0.2,
      });
      lines.forEach((each, i) => page.text(x + indent, y + text * 1.05 + i * line, each, text));
      if (shown !== '') {
        if (ring > 0) {
          const r = 0.16 * figure;
          const at = below ? x + indent + own - r : x + width - r;
          ringAt(page, at, y + (below ? upper + 0.55 * size : 0.55 * figure), r, filled);
        }
        if (below)
          page.text(x + indent, y + upper + 0.9 * size, shown, size, 'start', { strong: true });
        else page.text(x + width - ring, y + 0.9 * figure, shown, figure, 'end', { strong: true });
      }
      const from = y + upper + (below ? 1.15 * size : 0) + 0.85 * text;
      details.forEach((each, i) =>
        page.text(x + indent, from + i * line * 0.92, each, text * 0.88, 'start', { grey: 0.25 }),
      );
    },
  };
}

/** A tag for a strap: the short form alone, on a strip as long as it needs. */
export function tagSheet(
  { station, units = 'metric' }: Pick<CardAsked, 'station' | 'units'>,
  face: Typeface,
): Sheet {
  const size = { widthMm: 85, heightMm: 54 };
  const page = draftedOn(size, `${station.name}, tag`);
  const margin = 4;
  const code = 26;
  let text = 2.8;
  const linesAt = (mm: number) =>
    shortForm(station, units).flatMap((line, i) =>
      wrapped(line, size.widthMm - 3 * margin - code, mm, face, i === 0).map((each) => ({
        each,
        strong: i === 0,
      })),
    );
  while (linesAt(text).length * 1.3 * text > size.heightMm - 2 * margin && text > 1.4) text -= 0.1;
  linesAt(text).forEach(({ each, strong }, i) =>
    page.text(margin, margin + text + i * 1.3 * text, each, text, 'start', { strong }),
  );
  const x = size.widthMm - margin - code;
  for (const shape of codeShapes(cardText(station, units), x, margin, code)) page.shape(shape);
  page.shape({
    points: [
      [0.1, 0.1],
      [size.widthMm - 0.1, 0.1],
      [size.widthMm - 0.1, size.heightMm - 0.1],
      [0.1, size.heightMm - 0.1],
    ],
    closed: true,
    strokeMm: 0.1,
    grey: 0.6,
  });
  return page.sheet;
}
