import { readFileSync } from 'node:fs';
import {
  fieldsOf,
  fieldText,
  itemFrom,
  kitJsonSchema,
  kitText,
  KINDS,
  mountsOf,
  parseKitItem,
  readField,
  readKitText,
  sizeOf,
  summaryOf,
  textsOf,
  type KitItem,
} from '../src/index.js';
import { item, KIT } from './helpers/gear.js';

const problemIn = (document: unknown): string => {
  const read = parseKitItem(document);
  return read.ok ? 'taken' : `${read.problems[0]!.pointer} ${read.problems[0]!.message}`;
};

describe('items', () => {
  it('the demo holds enough of each kind, all of them read', () => {
    const count = (kind: string) => KIT.filter(({ document }) => document.kind === kind).length;
    expect(count('lens')).toBeGreaterThanOrEqual(6);
    expect(count('back')).toBeGreaterThanOrEqual(5);
    expect(count('adapter')).toBeGreaterThanOrEqual(5);
    expect(count('multiplier')).toBeGreaterThanOrEqual(3);
    expect(count('board')).toBeGreaterThanOrEqual(3);
    const bellows = KIT.filter(
      ({ document }) => document.kind === 'camera' && document.bellows_max_mm !== undefined,
    );
    expect(bellows.length).toBeGreaterThanOrEqual(2);
  });

  it.each([
    [{ kind: 'lens' }, '/name'],
    [{ kind: 'tripod', name: 'x' }, '/kind'],
    [{ ...item('Shift 24 f/3.5').document, f_max: 2 }, '/f_max'],
    [{ ...item('Small format back').document, height_mm: 40 }, '/height_mm'],
    [{ kind: 'camera', name: 'x' }, '/bellows_max_mm'],
    [{ kind: 'camera', name: 'x', bellows_max_mm: 300 }, '/bellows_min_mm'],
    [{ kind: 'camera', name: 'x', bellows_max_mm: 30, bellows_min_mm: 60 }, '/bellows_max_mm'],
    [
      { kind: 'camera', name: 'x', bellows_max_mm: 300, bellows_min_mm: 60, thickness_mm: 4 },
      '/thickness_mm',
    ],
    [{ kind: 'board', name: '', offset_mm: 0 }, '/name'],
    [{ kind: 'board', name: 'x', offset_mm: Infinity }, '/offset_mm'],
  ])('refuses %j at %s', (document, pointer) => {
    expect(problemIn(document).startsWith(`${pointer} `)).toBe(true);
  });

  it('keeps unknown fields, and gives every item a line that tells it apart', () => {
    const read = parseKitItem({ ...item('Flat board 42').document, colour: 'red' });
    expect(read.ok && (read.value as { colour?: string }).colour).toBe('red');
    const lines = KIT.map(({ document }) => `${document.name}: ${summaryOf(document)}`);
    expect(new Set(lines).size).toBe(KIT.length);
    expect(summaryOf(item('Shift 24 f/3.5').document)).toBe(
      '24 mm · f/3.5 to f/22 · circle 70.2 mm · ±12 mm, ±8.5°',
    );
    expect(mountsOf(item('Plain adapter 44 to 18').document)).toBe('Bayonet 44/48 → Bayonet 18/54');
    expect(KIT.every(({ document }) => Number.isFinite(sizeOf(document)))).toBe(true);
  });
});

describe('kit files', () => {
  it('come out and go in again the same', () => {
    const items = KIT.map(({ document }) => document);
    const read = readKitText(kitText(items));
    expect(read.ok && read.value.map((each) => each.ok && each.value)).toEqual(items);
  });

  it('one bad item does not cost the others', () => {
    const text = JSON.stringify({
      format: 'gangway.kit',
      version: 1,
      items: [{ kind: 'lens' }, item('Flat board 42').document],
    });
    const read = readKitText(text);
    expect(read.ok && read.value.map(({ ok }) => ok)).toEqual([false, true]);
  });

  it.each([
    ['', 'is empty'],
    ['{', 'is not JSON'],
    ['{"format":"gangway.station"}', 'must be "gangway.kit"'],
    ['{"format":"gangway.kit","version":2,"items":[]}', '2 was written by a newer Gangway'],
    ['{"format":"gangway.kit","version":1,"items":{}}', 'must be a list'],
  ])('%s is refused', (text, words) => {
    const read = readKitText(text);
    expect(!read.ok && read.problems[0]!.message).toContain(words);
  });

  it('the schema that ships is the one made here', () => {
    const shipped = readFileSync(new URL('../kit.schema.json', import.meta.url), 'utf8');
    expect(JSON.parse(shipped)).toEqual(JSON.parse(JSON.stringify(kitJsonSchema())));
  });
});

describe('items as they are written', () => {
  it('every item of the demo is the same after being written and read', () => {
    for (const { document } of KIT) {
      const { item: read, messages } = itemFrom(document.kind, textsOf(document));
      expect(messages).toEqual({});
      expect(read.ok && read.value).toEqual(document);
    }
  });

  it('takes what people write', () => {
    const { item: read } = itemFrom('lens', {
      name: ' Quay 35 ',
      focal_length_mm: '3.5 cm',
      f_min: 'f2.8',
      f_max: '22',
      circle: '8 62; f/2.8: 58mm',
      mass_g: '0.5 kg',
      'movement.shift_mm': '11',
      'movement.tilt_deg': '−8 to 2',
      'movement.turn_stops_deg': '0, 45; 90',
      'movement.reduced': 'f/2.8 to 4: 6',
      'close_focus.distance_mm': '30 cm',
      iris: 'set by the body',
      has_foot: 'no',
    });
    expect(read.ok && read.value).toEqual({
      kind: 'lens',
      name: 'Quay 35',
      focal_length_mm: 35,
      f_min: 2.8,
      f_max: 22,
      circle: [
        { f_number: 2.8, diameter_mm: 58 },
        { f_number: 8, diameter_mm: 62 },
      ],
      mass_g: 500,
      movement: {
        shift_mm: [-11, 11],
        tilt_deg: [-8, 2],
        turn_stops_deg: [0, 45, 90],
        reduced: [{ f_from: 2.8, f_to: 4, shift_mm: 6 }],
        moves: 'front',
      },
      // The thin lens’s magnification there: 35 mm at 300 mm.
      close_focus: { distance_mm: 300, magnification: 0.156 },
      iris: 'electronic',
      has_foot: false,
    });
  });

  it.each([
    ['focal_length_mm', 'soon', 'not a length'],
    ['circle', 'wide', 'not a stop and a diameter'],
    ['circle', 'f/4: wide', 'not a length'],
    ['movement.shift_mm', '1 to 2 to 3', 'two'],
    ['movement.reduced', 'f/4: 8', 'two stops'],
    ['iris', 'magic', 'none of'],
    ['has_foot', 'perhaps', 'neither yes nor no'],
    ['mass_g', 'heavy', 'not a number'],
  ])('says at %s what is wrong with “%s”', (path, text, words) => {
    const good = textsOf(item('Shift 24 f/3.5').document);
    const { messages, item: read } = itemFrom('lens', { ...good, [path]: text });
    expect(messages[path]).toContain(words);
    expect(read.ok).toBe(false);
  });

  it('asks for what is missing by its field', () => {
    const { messages } = itemFrom('lens', {});
    expect(Object.keys(messages).sort()).toEqual([
      'circle',
      'f_max',
      'f_min',
      'focal_length_mm',
      'name',
    ]);
    expect(messages.name).toBe('Give this: a name.');
  });

  it('keeps what the form does not know, and takes away what was emptied', () => {
    const base = { ...item('Flat board 42').document, colour: 'red' } as unknown as KitItem;
    const { item: read } = itemFrom('board', { ...textsOf(base), mass_g: '' }, base);
    expect(read.ok && read.value).toMatchObject({ colour: 'red', offset_mm: 0 });
    expect(read.ok && 'mass_g' in read.value).toBe(false);
    expect(base).toHaveProperty('mass_g');
  });

  it('each kind asks each field once, by a name of its own', () => {
    for (const kind of KINDS) {
      const paths = fieldsOf(kind).map(({ path }) => path);
      expect(new Set(paths).size).toBe(paths.length);
      for (const field of fieldsOf(kind)) expect(fieldText(field, {})).toBe('');
    }
  });
});

describe('stops of a turning, as written', () => {
  const stops = fieldsOf('adapter').find(({ path }) => path === 'movement.turn_stops_deg')!;
  it('one figure is asked about: every so many degrees, or one stop there?', () => {
    expect(readField(stops, '30')).toMatchObject({
      ok: false,
      message: 'Every 30°, or one stop at 30°? Write “every 30” or “only 30”.',
    });
    expect(readField(stops, 'only 30')).toEqual({ ok: true, value: [30] });
    expect(readField(stops, 'every 90°')).toEqual({ ok: true, value: [0, 90, 180, 270] });
    expect(readField(stops, 'every 50')).toMatchObject({ ok: false });
  });

  it('reads back as it is written', () => {
    for (const text of ['only 30', 'every 30', '0, 30, 60', '0']) {
      const read = readField(stops, text);
      const item = { movement: { turn_stops_deg: (read as { value: number[] }).value } };
      expect(fieldText(stops, item)).toBe(text);
    }
  });
});
