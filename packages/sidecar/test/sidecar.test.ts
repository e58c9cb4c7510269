import { describe, expect, test } from '@jest/globals';
import exifr from 'exifr';
import { isomorphic } from 'rdf-isomorphic';
import { DataFactory } from 'rdf-data-factory';
import { RdfXmlParser } from 'rdfxml-streaming-parser';
import type { Quad } from '@rdfjs/types';
import { newStation, type Logged } from '@gangway/station';
import {
  mergeSidecar,
  sidecarPlan,
  sidecarText,
  stemOf,
  wantedFor,
  type Wanted,
} from '../src/index.js';
import { EXISTING } from './sidecars.js';
import { MOST_MEMBERS } from '../src/document.js';

const station = {
  ...newStation('Customs house, west front'),
  lens: { ...newStation('').lens, name: 'Shift 24 f/3.5', focal_length_mm: 24, f_min: 3.5 },
  chain: [{ kind: 'multiplier' as const, factor: 1.4 }],
};
const line: Logged = {
  id: '00000000-0000-4000-8000-000000000001',
  station: '00000000-0000-4000-8000-0000000000a1',
  at: '2026-05-14T09:30:05+02:00',
  planned: false,
  frame: 2,
  bracket: 3,
  f_number: 11,
  time_s: 2 ** -2,
  iso: 100,
  flash: true,
  movements: { rise_mm: 8, shift_mm: -2.5, tilt_deg: 0, swing_deg: 0 },
  focus_m: 12,
  focal_length_mm: 33.6,
  lens: 'Shift 24 f/3.5',
  circle_mm: 84,
  rating: 4,
};
const wanted = wantedFor({ line, job: 'Orrin Quay', station });

/** The statements of a sidecar, by a parser that knows nothing of ours. */
function graph(text: string): Promise<Quad[]> {
  const rdf = /<rdf:RDF[\s\S]*<\/rdf:RDF>/.exec(text)![0];
  return new Promise((resolve, reject) => {
    const parser = new RdfXmlParser({ baseIRI: 'file:///picture' });
    const quads: Quad[] = [];
    parser.on('data', (quad: Quad) => quads.push(quad));
    parser.on('error', reject);
    parser.on('end', () => resolve(quads));
    parser.write(rdf);
    parser.end();
  });
}

const NS = {
  exif: 'http://ns.adobe.com/exif/1.0/',
  exifEX: 'http://cipa.jp/exif/1.0/',
  xmp: 'http://ns.adobe.com/xap/1.0/',
  dc: 'http://purl.org/dc/elements/1.1/',
  gangway: 'urn:gangway:xmp:1',
};
const RDF_NS = 'http://www.w3.org/1999/02/22-rdf-syntax-ns#';
const iriOf = ({ prefix, name }: Pick<Wanted, 'prefix' | 'name'>): string =>
  `${NS[prefix as keyof typeof NS]}${name}`;

const make = new DataFactory();
const LI = make.namedNode(`${RDF_NS}li`);

/** Statements without those that hang on nothing any more. */
function pruned(quads: readonly Quad[]): Quad[] {
  const left = [...quads];
  for (;;) {
    const used = new Set(left.map(({ object }) => object.value));
    const lost = left.findIndex(
      ({ subject }) => subject.termType === 'BlankNode' && !used.has(subject.value),
    );
    if (lost < 0) return left;
    left.splice(lost, 1);
  }
}

/** Kinds of which others’ words stay beside ours. */
const ADDED_TO = new Set(['sentence', 'keywords', 'flash']);

/**
 * What a graph says beside what Gangway was asked to write: its own properties are left out, and of
 * those it adds to (sentence, keywords, flash) only what it added.
 */
function theirs(quads: readonly Quad[], of: readonly Wanted[]): Quad[] {
  const whole = new Set(of.filter(({ value }) => !ADDED_TO.has(value.kind)).map(iriOf));
  const added = new Set(
    of.flatMap(({ value }) =>
      value.kind === 'sentence' ? [value.text] : value.kind === 'keywords' ? value.items : [],
    ),
  );
  const sets = new Set(
    quads
      .filter(({ predicate: { value } }) => /dc\/elements\/1.1\/(description|subject)$/.test(value))
      .map(({ object }) => object.value),
  );
  const left = quads
    .filter(
      ({ predicate: { value } }) =>
        !whole.has(value) && value !== `${NS.exif}Fired` && !value.startsWith(NS.gangway),
    )
    .map((quad) =>
      // What is added to a list moves the numbers of the others.
      sets.has(quad.subject.value) && /#_\d+$/.test(quad.predicate.value)
        ? make.quad(quad.subject, LI, quad.object)
        : quad,
    )
    .filter(({ predicate, object }) => !(predicate.equals(LI) && added.has(object.value)));
  const filled = new Set(
    left
      .filter(({ predicate }) => predicate.value !== `${RDF_NS}type`)
      .map(({ subject }) => subject.value),
  );
  return pruned(
    left.filter(({ object }) => object.termType !== 'BlankNode' || filled.has(object.value)),
  );
}

const merged = (existing: string | null, of: readonly Wanted[] = wanted) => {
  const result = mergeSidecar(existing, of);
  if (!result.ok) throw new Error(result.message);
  return result.merged;
};

describe('a sidecar', () => {
  test('is read back with the same values', async () => {
    const { text } = merged(null);
    expect((await graph(text)).length).toBeGreaterThan(20);
    const read = (await exifr.sidecar(Buffer.from(text), { xmp: { parse: true } } as never, 'xmp' as never)) as Record<string, Record<string, unknown>>; // prettier-ignore
    const { exif, exifEX, xmp, dc, gangway } = read as Record<string, Record<string, unknown>>;
    // f/11 × 1.4 = 15.84 with f/11 for 2^3.5; in APEX 2 log2 N (CIPA DC-008, annex C).
    expect(exif).toMatchObject({
      FNumber: '396/25',
      ExposureTime: '1/4',
      ShutterSpeedValue: '2/1',
      FocalLength: '168/5',
      SubjectDistance: '12/1',
      DateTimeOriginal: '2026-05-14T09:30:05+02:00',
      Flash: { Fired: true },
    });
    const [n, d] = String(exif!.ApertureValue).split('/').map(Number) as [number, number];
    expect(n / d).toBeCloseTo(2 * Math.log2(2 ** 3.5 * 1.4), 4);
    expect(String(exif!.ISOSpeedRatings)).toBe('100');
    expect(exifEX).toMatchObject({ PhotographicSensitivity: 100, LensModel: 'Shift 24 f/3.5' });
    expect(exifEX!.LensSpecification).toEqual(['24/1', '24/1', '7/2', '7/2']);
    expect(xmp).toMatchObject({ Rating: 4 });
    expect(JSON.stringify(dc!.description)).toContain('f/11, 1/4 s, flash, ISO 100');
    expect(dc!.subject).toContain('Orrin Quay');
    expect(gangway).toMatchObject({
      Station: 'Customs house, west front',
      Rise: 8,
      Shift: -2.5,
      Frame: 2,
      Bracket: 3,
      CircleDiameter: 84,
      Planned: false,
    });
  });

  test.each(Object.entries(EXISTING))('keeps the rest of one with %s', async (name, existing) => {
    const { text, changed, stays } = merged(existing);
    expect(changed).toBe(true);
    const [before, after] = await Promise.all([graph(existing), graph(text)]);
    // What an earlier run wrote goes; that is looked at below.
    if (!name.startsWith('written by')) {
      expect(theirs(before, wanted).length).toBeGreaterThan(0);
      expect(isomorphic(theirs(before, wanted), theirs(after, wanted))).toBe(true);
    }
    for (const { prefix, name: property, value } of wanted) {
      if (value.kind !== 'text' && value.kind !== 'moment') continue;
      const found = after.filter(
        ({ predicate }) => predicate.value === iriOf({ prefix, name: property }),
      );
      expect(found.map(({ object }) => object.value)).toEqual([value.text]);
      expect((found[0]!.object as { language?: string }).language).toBe('');
    }
    // A second run changes nothing, to the byte.
    expect(merged(text)).toMatchObject({ changed: false, text, written: [] });
    if (name === 'a flash with its own fields, and an old exposure') {
      expect(
        after.find(({ predicate }) => predicate.value === `${NS.exif}Mode`)?.object.value,
      ).toBe('2');
      expect(
        after.find(({ predicate }) => predicate.value === `${NS.exif}Fired`)?.object.value,
      ).toBe('True');
    }
    if (name === 'titles in four languages') expect(stays).toContain('dc:title');
  });

  const literals = (quads: readonly Quad[]): string[] =>
    quads.flatMap(({ object }) => (object.termType === 'Literal' ? [object.value] : []));

  test('leaves a person’s caption and keywords, and adds its own', async () => {
    const { text, stays, written } = merged(EXISTING['a caption of a person’s own']!);
    const said = literals(await graph(text));
    expect(said).toContain('Do not crop: the client wants the flagpole & the <quay>');
    expect(said).toEqual(expect.arrayContaining(['harbour', 'client picks', 'Orrin Quay']));
    expect(stays).toContain('dc:description');
    // What stays is named, and nothing of what is written.
    const names = written.map((each) => each.name);
    expect(stays.filter((each) => names.includes(each))).toEqual([]);
    expect(stays.filter((each) => each.startsWith('exif'))).toEqual([]);
    expect(written.map((each) => each.name)).not.toContain('dc:description');
  });

  test('adds its sentence beside other languages', async () => {
    const { text } = merged(EXISTING['titles in four languages']!);
    const quads = await graph(text);
    const found = quads.filter(({ object }) => object.value.startsWith('Shift 24') && object.termType === 'Literal'); // prettier-ignore
    expect(found.map(({ object }) => (object as { language?: string }).language)).toContain(
      'x-default',
    );
    expect(literals(quads)).toContain('Von Westen, bei Flut');
  });

  test('renews what an earlier run wrote, and nothing else', async () => {
    const { frame: _, ...other } = line;
    const now = wantedFor({ line: other, job: 'Orrin Quay', station });
    const { text, written } = merged(EXISTING['written by an earlier run']!, now);
    const said = literals(await graph(text));
    expect(said).not.toContain('Old name');
    expect(said).toContain('harbour');
    expect(said.some((each) => each.startsWith('f/8'))).toBe(false);
    expect(written).toContainEqual({ name: 'xmp:Rating', before: '1', after: '4' });
    expect(written).toContainEqual({ name: 'gangway:Frame', before: '7', after: '' });
  });

  test.each([
    [
      'a billion laughs',
      '<!DOCTYPE a [<!ENTITY b "ha"><!ENTITY c "&b;&b;">]><x>&c;</x>',
      /document type/,
    ],
    [
      'an entity from elsewhere',
      `<?xml version="1.0"?><!DOCTYPE r SYSTEM "file:///etc/passwd"><rdf:RDF xmlns:rdf="${RDF_NS}"/>`,
      /document type/,
    ],
    ['no XML', 'rating: 5', /not well-formed|no rdf:RDF/],
    ['XML cut short', EXISTING['qualifiers on values']!.slice(0, 300), /not well-formed/],
    ['other XML', '<a><b/></a>', /no rdf:RDF/],
    ['two descriptions', `<a>${`<rdf:RDF xmlns:rdf="${RDF_NS}"/>`.repeat(2)}</a>`, /more than one/],
    ['tags that never end', '<a'.repeat(200_000), /not well-formed/],
    ['a comment never closed', `<a><!--${'x'.repeat(400_000)}`, /not well-formed/],
    ['comments in comments', `<a>${'<!--'.repeat(100_000)}`, /not well-formed/],
    ['more parts than any', `<a>${'<b/>'.repeat(MOST_MEMBERS)}</a>`, /more than 200000 parts/],
    ['a document type after a comment', '<!-- --><!DOCTYPE a><a/>', /document type/],
    ['a tower of tags', `${'<a>'.repeat(5000)}${'</a>'.repeat(5000)}`, /nested deeper/],
  ])('refuses %s', (_, text, message) => {
    const result = mergeSidecar(text, wanted);
    expect(result).toEqual({ ok: false, message: expect.stringMatching(message) });
  });

  test('is read in UTF-16 too, and refused where it is no text', () => {
    const text = EXISTING['titles in four languages']!;
    const wide = Buffer.concat([Buffer.from([0xff, 0xfe]), Buffer.from(text, 'utf16le')]);
    expect(sidecarText(wide)).toBe(text);
    expect(() => sidecarText(Buffer.from([0x3c, 0xff, 0x80]))).toThrow('not text');
    expect(() => sidecarText(new Uint8Array(5_000_000))).toThrow('larger than');
  });
});

describe('names', () => {
  test.each([
    ['IMG_0001.RAW', 'IMG_0001'],
    ['a.b.jpg', 'a.b'],
    ['scan', 'scan'],
    ['../../etc/passwd', null],
    ['..\\x.jpg', null],
    ['C:x.jpg', null],
    ['..', null],
    ['.jpg', null],
    ['NUL.jpg', null],
    ['a\u0000.jpg', null],
    ['ends. .jpg', null],
  ])('%j', (file, stem) => expect(stemOf(file)).toBe(stem));

  test('two lines of one picture get no sidecar, a raw file and a JPEG are one', () => {
    const plan = sidecarPlan(
      'Job',
      [
        { ...line, file: 'P1.RAW' },
        { ...line, id: '00000000-0000-4000-8000-000000000002', file: 'P1.JPG' },
        { ...line, id: '00000000-0000-4000-8000-000000000003', file: 'P2.JPG' },
      ],
      new Map(),
    );
    expect(plan.sidecars.map(({ name }) => name)).toEqual(['P2.xmp']);
    expect(plan.without.map(({ why }) => why)).toEqual(Array(2).fill('Several lines name P1: only one of them can be that picture.')); // prettier-ignore
  });
});
