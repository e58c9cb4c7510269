import { describe, expect, test } from '@jest/globals';
import { DOMParser, XMLSerializer, type Element } from '@xmldom/xmldom';
import fc from 'fast-check';
import { newStation, type Logged } from '@gangway/station';
import { mergeSidecar, wantedFor } from '../src/index.js';
import { runs } from '../../../scripts/lib/runs.mjs';

/**
 * Sidecars of others, written into twice with changes between: whatever another hand put there stays.
 * They are read back by their text alone, not by what wrote them.
 */

const NS = {
  rdf: 'http://www.w3.org/1999/02/22-rdf-syntax-ns#',
  dc: 'http://purl.org/dc/elements/1.1/',
  xmp: 'http://ns.adobe.com/xap/1.0/',
  exif: 'http://ns.adobe.com/exif/1.0/',
  q: 'http://example.org/qualifier/',
};

const LINE: Logged = {
  id: '00000000-0000-4000-8000-000000000001',
  at: '2026-05-14T09:30:05+02:00',
  planned: false,
  f_number: 11,
  iso: 100,
};

const NAMES = ['West front', 'Ropewalk', 'Orrin Quay', 'Shift 24', 'harbour', 'picks', 'tide'];

interface Theirs {
  readonly keywords: readonly { readonly word: string; readonly sure: boolean }[];
  readonly rating: number | null;
  readonly hundredths: string | null;
  readonly checked: boolean;
  readonly caption: string | null;
}

const theirs: fc.Arbitrary<Theirs> = fc.record({
  keywords: fc.uniqueArray(fc.record({ word: fc.constantFrom(...NAMES), sure: fc.boolean() }), {
    selector: ({ word }) => word,
    maxLength: 4,
  }),
  rating: fc.option(fc.integer({ min: 1, max: 5 })),
  hundredths: fc.option(fc.constantFrom('.37', '.05', '.5')),
  checked: fc.boolean(),
  caption: fc.option(fc.constantFrom('Do not crop', 'f/11, ISO 100')),
});

const item = ({ word, sure }: Theirs['keywords'][number]): string =>
  sure
    ? `<rdf:li rdf:parseType="Resource"><rdf:value>${word}</rdf:value><q:sure>yes</q:sure></rdf:li>`
    : `<rdf:li>${word}</rdf:li>`;

/** A sidecar as another program writes it. */
const written = ({ keywords, rating, hundredths, checked, caption }: Theirs): string =>
  `<rdf:RDF ${Object.entries(NS)
    .map(([prefix, uri]) => `xmlns:${prefix}="${uri}"`)
    .join(' ')}><rdf:Description rdf:about="" ${rating === null ? '' : `xmp:Rating="${rating}"`}>
  ${keywords.length === 0 ? '' : `<dc:subject><rdf:Bag>${keywords.map(item).join('')}</rdf:Bag></dc:subject>`}
  ${hundredths === null ? '' : `<exif:DateTimeOriginal>2026-05-14T09:30:05${hundredths}</exif:DateTimeOriginal>`}
  ${checked ? '<exif:FNumber rdf:parseType="Resource"><rdf:value>8/1</rdf:value><q:checked>by hand</q:checked></exif:FNumber>' : ''}
  ${caption === null ? '' : `<dc:description><rdf:Alt><rdf:li xml:lang="x-default">${caption}</rdf:li></rdf:Alt></dc:description>`}
  </rdf:Description></rdf:RDF>`;

const read = (text: string) => {
  const document = new DOMParser().parseFromString(text, 'application/xml');
  const all = (prefix: keyof typeof NS, name: string, under?: Element): Element[] => [
    ...(under ?? document).getElementsByTagNameNS(NS[prefix], name),
  ];
  const [subject] = all('dc', 'subject');
  const [first] = all('rdf', 'Description');
  return {
    keywords: (subject ? all('rdf', 'li', subject) : []).map((each) => ({
      word: (all('rdf', 'value', each)[0] ?? each).textContent!,
      sure: all('q', 'sure', each).length > 0,
    })),
    rating: all('xmp', 'Rating')[0]?.textContent ?? first?.getAttributeNS(NS.xmp, 'Rating') ?? null,
    taken: all('exif', 'DateTimeOriginal')[0]!.textContent!,
    stop: all('exif', 'FNumber')[0]!,
    checked: all('q', 'checked').length > 0,
    captions: all('dc', 'description').map((each) => each.textContent!.trim()),
  };
};

const run = (existing: string | null, line: Logged, name: string): string => {
  const station = newStation(name);
  const result = mergeSidecar(existing, wantedFor({ line, job: 'Orrin Quay', station }));
  if (!result.ok) throw new Error(result.message);
  return result.merged.text;
};

/** What another hand does between two runs. */
const hand: fc.Arbitrary<{ rating: number | null; adds: string | null; takes: boolean }> =
  fc.record({
    rating: fc.option(fc.integer({ min: 1, max: 5 })),
    adds: fc.option(fc.constantFrom('sold', 'Ropewalk')),
    takes: fc.boolean(),
  });

const rated = (text: string, rating: number | null): string =>
  rating === null
    ? text
    : text
        .replace(/xmp:Rating="\d"/, `xmp:Rating="${rating}"`)
        .replace(/(<xmp:Rating>)\d(?=<)/, `$1${rating}`);

/** Adds a keyword and takes one away. */
function touched(text: string, adds: string | null, takes: string | null): string {
  const document = new DOMParser().parseFromString(text, 'application/xml');
  const [subject] = document.getElementsByTagNameNS(NS.dc, 'subject');
  const [bag] = subject!.getElementsByTagNameNS(NS.rdf, 'Bag');
  const items = [...bag!.getElementsByTagNameNS(NS.rdf, 'li')];
  const word = (each: Element): string => each.textContent!.replace('yes', '').trim();
  for (const each of items) if (word(each) === takes) bag!.removeChild(each);
  if (adds !== null && !items.some((each) => word(each) === adds)) {
    const made = document.createElementNS(NS.rdf, 'rdf:li');
    made.textContent = adds;
    bag!.appendChild(made);
  }
  return new XMLSerializer().serializeToString(document);
}

describe('what another hand wrote', () => {
  test('stays, written into twice with changes between', () => {
    let seen = { rated: 0, taken: 0, sure: 0 };
    fc.assert(
      fc.property(
        theirs,
        hand,
        fc.constantFrom('West front', 'Ropewalk'),
        fc.constantFrom('West front', 'Ropewalk', 'Ferry'),
        fc.option(fc.integer({ min: 1, max: 5 })),
        (before, between, first, second, rating) => {
          const own = rating === null ? LINE : { ...LINE, rating };
          const once = run(written(before), own, first);
          const isTheirs = before.keywords.some(({ word }) => word === 'Orrin Quay');
          const taken = between.takes && !isTheirs ? 'Orrin Quay' : null;
          // A word that an earlier run wrote already is not one that the hand adds.
          const isThere = read(once).keywords.some(({ word }) => word === between.adds);
          const adds = isThere ? null : between.adds;
          const marked = rated(once, between.rating);
          const isRated = marked !== once;
          const changed = touched(marked, adds, taken);
          const there = read(changed);
          const twice = read(run(changed, { ...own, iso: 200 }, second));

          const words = twice.keywords.map(({ word }) => word);
          for (const each of before.keywords) expect(twice.keywords).toContainEqual(each);
          if (adds !== null) expect(words).toContain(adds);
          expect(new Set(words).size).toBe(words.length);
          // What was taken away does not come back.
          if (taken !== null) expect(words).not.toContain(taken);
          // Of an earlier run’s names only those stay that were there before it.
          const stale = first !== second && !before.keywords.some(({ word }) => word === first);
          if (stale && adds !== first) expect(words).not.toContain(first);
          expect(words).toContain(second);

          if (isRated || before.rating !== null) expect(twice.rating).toBe(there.rating);
          else expect(twice.rating).toBe(rating === null ? null : String(rating));
          expect(twice.taken).toBe(`2026-05-14T09:30:05${before.hundredths ?? ''}+02:00`);
          expect(twice.checked).toBe(before.checked);
          expect(twice.stop.textContent!.replace('by hand', '').trim()).toBe('11/1');
          if (before.caption !== null) expect(twice.captions).toEqual([before.caption]);
          seen = {
            rated: seen.rated + Number(isRated),
            taken: seen.taken + Number(taken !== null),
            sure: seen.sure + Number(before.keywords.some(({ sure }) => sure)),
          };
        },
      ),
      { numRuns: runs(1500) },
    );
    for (const count of Object.values(seen)) expect(count).toBeGreaterThan(10);
  });
});
