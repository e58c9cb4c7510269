import {
  exposureReport,
  fStop,
  lightSaid,
  type Packed,
  type Packing,
  type Station,
  type Units,
} from '@gangway/station';
import { cardSheets } from './card.js';
import { draftedOn, type Drafted } from './drafted.js';
import { flowed, wrapped, type Block } from './flow.js';
import { SIZES, type Size } from './papers.js';
import { finderPicture } from './pictures.js';
import type { Sheet } from './sheet.js';
import type { Typeface } from './typeface.js';

export interface DayAsked {
  readonly job: string;
  readonly stations: readonly Station[];
  readonly packing: Packing;
  readonly size: Size;
  readonly units?: Units;
}

const TEXT: Record<Size, number> = { A6: 2.5, A5: 3, A4: 3.3, Letter: 3.3 };

/** The whole job: the order of the day, what to pack, and every card. */
export function daySheets(asked: DayAsked, face: Typeface): Sheet[] {
  const { stations, job, size, units = 'metric' } = asked;
  return [
    ...listSheets(asked, face),
    ...stations.flatMap((station, i) =>
      cardSheets({ station, size, units, job, place: `${i + 1} of ${stations.length}` }, face),
    ),
  ];
}

/** Order of the day and packing list alone. */
export function listSheets({ job, stations, packing, size }: DayAsked, face: Typeface): Sheet[] {
  const { widthMm, heightMm } = SIZES[size];
  const margin = size === 'A6' ? 6 : 10;
  const text = TEXT[size];
  const width = widthMm - 2 * margin;
  const pages: Drafted[] = [];
  const blocks = [
    ...dayBlocks(job, stations, width, text, face),
    ...packingBlocks(packing, width, text, face),
  ];
  flowed(blocks, (index) => {
    const page = draftedOn(SIZES[size], `${job}, order and packing`);
    pages[index] = page;
    return { page, x: margin, top: margin, bottom: heightMm - margin - 1.5 * text };
  });
  pages.forEach((page, i) =>
    page.text(
      margin,
      heightMm - margin,
      wrapped(`${job}, ${i + 1} of ${pages.length}`, width, 0.8 * text, face)[0] ?? '',
      0.8 * text,
      'start',
      { grey: 0.35 },
    ),
  );
  return pages.map(({ sheet }) => sheet);
}

const title = (said: string, width: number, text: number, face: Typeface): Block => {
  const lines = wrapped(said, width, 1.8 * text, face, true);
  return {
    heightMm: lines.length * 2.2 * text + text,
    withNext: true,
    draw: (page, x, y) =>
      lines.forEach((line, i) =>
        page.text(x, y + 1.9 * text + i * 2.2 * text, line, 1.8 * text, 'start', { strong: true }),
      ),
  };
};

/** What is said of a station in the order of the day. */
function lineOf(station: Station): string {
  const { lens, aperture, exposure, back } = station;
  const light = exposure ? lightSaid(station, exposureReport(station, exposure)) : '';
  return [
    lens.name ?? `${lens.focal_length_mm} mm`,
    back.orientation === 'portrait' ? 'upright' : 'level',
    fStop(aperture),
    light,
  ]
    .filter(Boolean)
    .join(', ');
}

function dayBlocks(
  job: string,
  stations: readonly Station[],
  width: number,
  text: number,
  face: Typeface,
): Block[] {
  const tall = 6.2 * text;
  return [
    title(job, width, text, face),
    ...stations.map((station, i): Block => {
      const from = 10.5 * text;
      const [name = ''] = wrapped(station.name, width - from, 1.25 * text, face, true);
      const at = station.exposure?.starts_at;
      const [said = ''] = wrapped(lineOf(station), width - from, text, face);
      return {
        heightMm: tall + text,
        draw: (page, x, y) => {
          page.rule(x, y, x + width, y, 0.15);
          page.text(x, y + 2 * text, String(i + 1), 1.25 * text, 'start', { strong: true });
          const box = {
            x: x + 2 * text,
            y: y + 0.7 * text,
            width: 7.6 * text,
            height: tall - 0.9 * text,
          };
          for (const shape of finderPicture(station, box)) page.shape(shape);
          page.text(x + from, y + 2 * text, name, 1.25 * text, 'start', { strong: true });
          page.text(x + from, y + 3.6 * text, said, text);
          if (at !== undefined) page.text(x + from, y + 5.2 * text, `Shutter opens at ${at}`, text);
        },
      };
    }),
  ];
}

function packingBlocks(
  { gear, extras, hands }: Packing,
  width: number,
  text: number,
  face: Typeface,
): Block[] {
  const head = title('To pack', width, text, face);
  const blocks: Block[] = [
    head,
    ...[...gear, ...extras].map((each) => thing(each, width, text, face)),
  ];
  if (hands.length === 0) return blocks;
  return [
    ...blocks,
    title('Needs a second pair of hands', width, text, face),
    ...hands.map(({ station, why }): Block => {
      const lines = wrapped(`Station ${station + 1}. ${why}`, width, text, face);
      return {
        heightMm: lines.length * 1.35 * text + 0.4 * text,
        draw: (page, x, y) =>
          lines.forEach((line, i) => page.text(x, y + text + i * 1.35 * text, line, text)),
      };
    }),
  ];
}

/** Where a thing is used, how many are needed, and what could stand in for it. */
export function packedSaid({ usedAt, spares, count, kind }: Packed): string {
  const at =
    usedAt.length === 0
      ? ''
      : `station${usedAt.length > 1 ? 's' : ''} ${usedAt.map((i) => i + 1).join(', ')}`;
  const many =
    count === null
      ? ''
      : kind === 'film'
        ? `${count} ${count === 1 ? 'exposure' : 'exposures'}`
        : count > 1
          ? `${count} of them`
          : '';
  return [at, many, spareSaid(spares, kind)].filter(Boolean).join('; ');
}

/** Of a film there is enough or not; of an extra its number says all. */
function spareSaid(spares: Packed['spares'], kind: Packed['kind']): string {
  if (kind === 'film' || (kind === 'extra' && spares?.length !== 0)) return '';
  if (spares === null) return 'not in the kit';
  return spares.length === 0 ? 'no spare' : `spare: ${spares[0]!}`;
}

/** Nothing could stand in for it: what is lost there is lost for the day. */
export const isBare = ({ spares, kind }: Packed): boolean =>
  kind !== 'film' && spares?.length === 0;

function thing(packed: Packed, width: number, text: number, face: Typeface): Block {
  const indent = 1.8 * text;
  const lines = wrapped(packed.name, 0.52 * width - indent, text, face);
  const told = wrapped(packedSaid(packed), 0.46 * width, 0.9 * text, face);
  return {
    heightMm: Math.max(lines.length, told.length) * 1.35 * text + 0.35 * text,
    draw: (page, x, y) => {
      const side = 0.95 * text;
      page.shape({
        points: [
          [x, y + 0.2 * text],
          [x + side, y + 0.2 * text],
          [x + side, y + 0.2 * text + side],
          [x, y + 0.2 * text + side],
        ],
        closed: true,
        strokeMm: 0.2,
      });
      lines.forEach((line, i) => page.text(x + indent, y + text + i * 1.35 * text, line, text));
      told.forEach((line, i) =>
        page.text(x + 0.54 * width, y + text + i * 1.35 * text, line, 0.9 * text, 'start', {
          grey: isBare(packed) ? 0 : 0.3,
        }),
      );
    },
  };
}
