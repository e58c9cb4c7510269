import jsQR from 'jsqr';
import {
  cardText,
  newStation,
  packingOf,
  parseStation,
  shortForm,
  type Station,
} from '@gangway/station';
import {
  cardSheets,
  codeOf,
  daySheets,
  listSheets,
  MORE_FILES,
  sheetPdf,
  SIZES,
  tagSheet,
  typeface,
  type Sheet,
  type Size,
} from '../src/index.js';
import { FACE, more, own, shown, textOf, type Shown } from './read.js';

const sound = (station: object): Station => {
  const read = parseStation(station);
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.value;
};

/** Everything a card may have on it. */
const FULL = sound({
  ...newStation('Customs house, north front'),
  facade: { distance_m: 22, top_m: 16, width_m: 20, base_m: 0 },
  site: { boxes: [{ name: 'Crane', x_m: 6, z_m: 14, width_m: 2, depth_m: 2, height_m: 9 }] },
  movements: { rise_mm: 9.4, shift_mm: -2, tilt_deg: 0.5, swing_deg: 0 },
  marks: [
    { label: 'Lantern', x_m: 0, y_m: 4, z_m: 20, must: 'sharp' },
    { label: 'Door', x_m: 2, y_m: 1, z_m: 22, must: 'sharp' },
  ],
  stand: { note: 'Brass stud by the third bollard', care: ['sun', 'road', 'permission'] },
  exposure: {
    iso: 64,
    meter: { time_s: 0.008, f_number: 8, iso: 64, through_lens: true },
    filters: [{ name: 'Polariser 82', stops: 1.5 }],
    brackets: { frames: 3, step_stops: 1.6667 },
  },
});

const MOSAIC = sound({
  ...newStation('Ropewalk in frames'),
  mosaic: { pattern: 'grid', columns: 3, moves: 'lens', overlap: 0.5 },
});

const reaches = ({ shapes = [], lines, texts }: Sheet) => [
  ...shapes.flatMap(({ points }) => points),
  ...lines.flatMap(({ x1, y1, x2, y2 }) => [[x1, y1] as const, [x2, y2] as const]),
  ...texts.map(({ x, y }) => [x, y] as const),
];

/** Where a text ends, by its own letters. */
const ends = ({ x, text, sizeMm, anchor, strong }: Sheet['texts'][number]): [number, number] => {
  const width = FACE.widthMm(text, sizeMm, strong);
  return anchor === 'end'
    ? [x - width, x]
    : anchor === 'middle'
      ? [x - width / 2, x + width / 2]
      : [x, x + width];
};

/** The code of a page as a phone held over it sees it: the part where its black runs stand, and a margin. */
function codeIn(page: Shown, { shapes = [], widthMm }: Sheet) {
  const runs = shapes.filter(({ fill, points }) => fill === 0 && points.length === 4);
  const xs = runs.flatMap(({ points }) => points.map(([x]) => x));
  const ys = runs.flatMap(({ points }) => points.map(([, y]) => y));
  const px = page.widthPx / widthMm;
  const [left, top] = [Math.min(...xs) - 1.5, Math.min(...ys) - 1.5].map((mm) =>
    Math.floor(mm * px),
  ) as [number, number];
  const [width, height] = [Math.max(...xs) + 1.5, Math.max(...ys) + 1.5].map(
    (mm, i) => Math.ceil(mm * px) - [left, top][i]!,
  ) as [number, number];
  const cut = new Uint8ClampedArray(4 * width * height);
  for (let y = 0; y < height; y++) {
    const from = 4 * ((top + y) * page.widthPx + left);
    cut.set(page.pixels.subarray(from, from + 4 * width), 4 * y * width);
  }
  return jsQR(cut, width, height, { inversionAttempts: 'dontInvert' });
}

describe('a card on paper', () => {
  it.each(Object.keys(SIZES) as Size[])(
    'on %s every drawing and every word lies on its page',
    (size) => {
      const { widthMm, heightMm } = SIZES[size];
      for (const station of [FULL, MOSAIC, newStation('Bare')]) {
        const sheets = cardSheets({ station, size, job: 'A day', place: '2 of 5' }, FACE);
        const outside = sheets.flatMap((sheet) => [
          ...reaches(sheet).filter(
            ([x, y]) => x < 4 || x > widthMm - 4 || y < 4 || y > heightMm - 4,
          ),
          ...sheet.texts.filter((each) => {
            const [from, to] = ends(each);
            return from < 4 || to > widthMm - 4;
          }),
        ]);
        expect(outside).toEqual([]);
      }
    },
  );

  it('no two texts lie on one another', () => {
    for (const size of Object.keys(SIZES) as Size[]) {
      for (const { texts } of cardSheets({ station: FULL, size }, FACE)) {
        const over = texts.flatMap((a, i) => {
          const [a0, a1] = ends(a);
          return texts.slice(i + 1).filter((b) => {
            const [b0, b1] = ends(b);
            const apart = a1 <= b0 + 0.01 || b1 <= a0 + 0.01;
            // Letters stand about three quarters of their size above the line.
            return !apart && a.y > b.y - 0.72 * b.sizeMm && b.y > a.y - 0.72 * a.sizeMm;
          });
        });
        expect(over).toEqual([]);
      }
    }
  });

  it('is text that a reader finds, word for word', async () => {
    const { bytes, missing } = await sheetPdf(
      cardSheets({ station: FULL, size: 'A6' }, FACE),
      FACE,
    );
    expect(missing).toBe('');
    const text = await textOf(bytes);
    for (const said of [
      'Customs house, north front',
      'Brass stud by the third bollard',
      'Tripod to the front, square on',
      '22.0 m',
      'Raise the lens',
      '9.4 mm',
      'Stop down to',
      'Put on: Polariser 82',
      'keep off the carriageway',
      'Lantern, Door.',
    ]) {
      expect([said, text.includes(said)]).toEqual([said, true]);
    }
  });

  it('has any letter a user types, in a typeface that is embedded', async () => {
    const station = {
      ...newStation('Митница Ελλάδα 写真 Übergang Łódź בית'),
      stand: { note: '한국 ∞ 1⅔' },
    };
    const face = typeface(own(), more(MORE_FILES));
    const { bytes, missing } = await sheetPdf(cardSheets({ station, size: 'A5' }, face), face);
    expect(missing).toBe('');
    const text = await textOf(bytes);
    for (const word of [
      'Митница',
      'Ελλάδα',
      '写真',
      'Übergang',
      'Łódź',
      '한국',
      'infinity 1 2/3',
    ]) {
      expect([word, text.includes(word)]).toEqual([word, true]);
    }
    // Without them it says which letters it lacks.
    const poor = await sheetPdf(cardSheets({ station, size: 'A5' }, FACE), FACE);
    expect([...poor.missing]).toEqual(expect.arrayContaining(['М', '写', '한']));
  });

  it('its code, as printed, is read by another’s reader and holds the settings', async () => {
    const sheets = [
      ...cardSheets({ station: FULL, size: 'A6' }, FACE).slice(-1),
      tagSheet({ station: FULL }, FACE),
    ];
    const { bytes } = await sheetPdf(sheets, FACE);
    const pages = await shown(bytes, 16);
    const read = pages.map((page, i) => {
      const found = codeIn(page, sheets[i]!);
      return found && new TextDecoder().decode(new Uint8Array(found.binaryData));
    });
    expect(read).toEqual([cardText(FULL), cardText(FULL)]);
    expect(read[0]).toContain('rise 9.4 mm up');
  });

  it('its drawings are black on white, and there', async () => {
    const [sheet] = cardSheets({ station: FULL, size: 'A5' }, FACE) as [Sheet];
    const { bytes } = await sheetPdf([sheet], FACE);
    const [page] = await shown(bytes, 4);
    const colours = new Set<number>();
    const { pixels } = page!;
    for (let i = 0; i < pixels.length; i += 4) {
      if (pixels[i] !== pixels[i + 1] || pixels[i] !== pixels[i + 2]) colours.add(i);
    }
    expect(colours.size).toBe(0);
    expect((sheet.shapes ?? []).length).toBeGreaterThan(40);
  });
});

describe('a tag', () => {
  it('is as large as a bank card and holds the short form, whatever the name', () => {
    const long = { ...FULL, name: 'A very long name of a place '.repeat(7).slice(0, 190) };
    for (const station of [FULL, long]) {
      const sheet = tagSheet({ station }, FACE);
      expect([sheet.widthMm, sheet.heightMm]).toEqual([85, 54]);
      for (const each of sheet.texts) {
        const [from, to] = ends(each);
        expect(from).toBeGreaterThanOrEqual(3);
        expect(to).toBeLessThanOrEqual(82);
        expect(each.y).toBeLessThanOrEqual(52);
      }
      const said = sheet.texts.map(({ text }) => text).join(' ');
      expect(said.replace(/\s/g, '')).toBe(shortForm(station).join(' ').replace(/\s/g, ''));
    }
  });

  it('a code of its own for every text, and room of four modules about it', () => {
    const one = codeOf('rise 9.4 mm up');
    expect(codeOf('rise 9.5 mm up').dark).not.toEqual(one.dark);
    expect(Math.min(...one.dark.flat())).toBe(4);
    expect(Math.max(...one.dark.flat())).toBe(one.size - 5);
  });
});

describe('sheets for a job', () => {
  const stations = [FULL, MOSAIC];
  const packing = packingOf(stations, [
    {
      id: 'x',
      document: { kind: 'extra', name: 'Cable release', comes_with: 'every_job', count: 2 },
    },
  ]);
  const asked = { job: 'A day in October', stations, packing, size: 'A5' as const };

  it('order, packing and every card in one, each card with its place', () => {
    const sheets = daySheets(asked, FACE);
    const said = sheets.map(({ texts }) => texts.map(({ text }) => text).join(' ')).join(' ');
    for (const each of [
      'A day in October',
      'To pack',
      'Cable release',
      'Shift 24 f/3.5',
      'stations 1, 2; not in the kit',
      'A day in October, 1 of 2',
      'A day in October, 2 of 2',
      'Ropewalk in frames',
    ]) {
      expect([each, said.includes(each)]).toEqual([each, true]);
    }
    expect(listSheets(asked, FACE).length).toBeLessThan(sheets.length);
  });

  it('a long list goes on over as many pages as it takes', () => {
    const many = Array.from({ length: 30 }, (_, i) => ({ ...newStation(`Place ${i + 1}`) }));
    const pages = listSheets({ ...asked, stations: many, packing: packingOf(many, []) }, FACE);
    expect(pages.length).toBeGreaterThan(2);
    for (const { texts, heightMm } of pages) {
      for (const { y } of texts) expect(y).toBeLessThanOrEqual(heightMm - 5);
    }
  });
});
