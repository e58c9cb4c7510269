import fc from 'fast-check';
import {
  cutText,
  fieldsOf,
  isWellFormed,
  KINDS,
  parseAngleDeg,
  parseDistanceM,
  parseFNumber,
  parseKitItem,
  parseLengthMm,
  parseRatio,
  parseRig,
  parseStation,
} from '../src/index.js';
import { readField } from '../src/kit/texts.js';
import { newStation } from '../src/document/new-station.js';

describe('half characters', () => {
  it('are told from whole ones as the language itself does', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: 'binary' }),
        fc.integer({ min: 0xd800, max: 0xdfff }),
        (text, half) => {
          expect(isWellFormed(text)).toBe(true);
          expect(isWellFormed(`${text} ${String.fromCharCode(half)} ${text}`)).toBe(false);
        },
      ),
    );
  });

  it('are refused before anything stores them, in values, in kept fields and in their names', () => {
    const station = newStation('Pier');
    const half = 'ha\ud83dlf';
    for (const document of [
      { ...station, name: half },
      { ...station, later: { deep: [half] } },
      { ...station, [half]: 1 },
    ]) {
      const read = parseStation(document);
      expect(read.ok ? '' : read.problems[0]!.message).toContain('half of a character');
    }
    expect(parseRig({ format: 'gangway.rig', version: 1, name: half, chain: [] }).ok).toBe(false);
    expect(parseKitItem({ kind: 'board', name: half, offset_mm: 1 }).ok).toBe(false);
  });
});

describe('cutting text', () => {
  it('never cuts a character that people see as one', () => {
    const seen = new Intl.Segmenter('en', { granularity: 'grapheme' });
    const letters = ['a', 'é', 'e\u0301', '👨‍👩‍👧', '🇵🇹', '한', '𝒳', ' '];
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...letters)), fc.nat({ max: 40 }), (parts, most) => {
        const text = parts.join('');
        const cut = cutText(text, most);
        expect(text.startsWith(cut)).toBe(true);
        expect(cut.length).toBeLessThanOrEqual(most);
        const ends = [0];
        for (const { index, segment } of seen.segment(text)) ends.push(index + segment.length);
        expect(ends).toContain(cut.length);
        // Nothing more would have gone in.
        expect(ends.some((end) => end > cut.length && end <= most)).toBe(false);
      }),
    );
  });
});

/** Texts on which a pattern that tries every way of splitting them would take minutes. */
const HOSTILE = [
  '1',
  ' ',
  '1 ',
  "1'",
  '\t',
  '.',
  '1.',
  '-',
  '°',
  'f/',
  '1/',
  'e1',
  '; ',
  'to ',
  '±',
].flatMap((part) => [`${part.repeat(200_000)}!`, `1${part.repeat(200_000)}x`]);

describe('what people type is read in linear time', () => {
  // A reader that is not linear does not end here within the patience of the run.
  it.each([
    ['length', (text: string) => parseLengthMm(text, 'mm')],
    ['distance', (text: string) => parseDistanceM(text, 'm')],
    ['angle', parseAngleDeg],
    ['f-number', parseFNumber],
    ['ratio', parseRatio],
  ] as const)('%s', (_, read) => {
    for (const text of HOSTILE) {
      const answer = read(text);
      expect(answer.ok).toBe(false);
      if (!answer.ok) expect(answer.message.length).toBeLessThan(300);
    }
  });

  it.each(
    KINDS.flatMap((kind) => fieldsOf(kind).map((field) => [kind, field.path, field] as const)),
  )('%s, %s', (_kind, _path, field) => {
    for (const text of HOSTILE) readField(field, text);
  });
});
