import type { Document, Element } from '@xmldom/xmldom';
import {
  add,
  elementsIn,
  is,
  nodesOf,
  parseXml,
  prefixAt,
  rdfOf,
  serialized,
  Unreadable,
} from './document.js';
import { NAMESPACES, XML, type Prefix } from './namespaces.js';
import {
  addList,
  containerIn,
  drop,
  has,
  isQualified,
  namesIn,
  itemsIn,
  otherNames,
  placeOf,
  propertyElements,
  remove,
  setText,
  simpleText,
  valueOf,
} from './properties.js';
import type { Wanted } from './wanted.js';

/** What becomes of one property. */
export interface Written {
  readonly name: string;
  /** Null: it was not there. */
  readonly before: string | null;
  readonly after: string;
}

export interface Merged {
  readonly text: string;
  /** False: the sidecar says all of it already, and stays byte for byte as it is. */
  readonly changed: boolean;
  readonly written: readonly Written[];
  /** Properties that stay as they are, by name. */
  readonly stays: readonly string[];
}

export type MergeResult =
  { readonly ok: true; readonly merged: Merged } | { readonly ok: false; readonly message: string };

const EMPTY = `<?xml version="1.0" encoding="UTF-8"?>
<x:xmpmeta xmlns:x="${NAMESPACES.x}">
  <rdf:RDF xmlns:rdf="${NAMESPACES.rdf}">
    <rdf:Description rdf:about=""/>
  </rdf:RDF>
</x:xmpmeta>
`;

interface Before {
  readonly nodes: readonly Element[];
  /** Keywords that an earlier run added: those alone are ours to take away. */
  readonly keywords: readonly string[];
  readonly said: string | null;
  /** The rating that an earlier run wrote. */
  readonly rated: string | null;
}

type Apply<K extends Wanted['value']['kind']> = (
  before: Before,
  wanted: Wanted & { value: Extract<Wanted['value'], { kind: K }> },
) => Written | null;

const joined = (value: readonly string[] | null): string | null => value && value.join(', ');

const isSame = (before: readonly string[] | null, after: readonly string[]): boolean =>
  before?.length === after.length && before.every((each, i) => each === after[i]);

/** What stands in a property is written over in place where something qualifies it. */
const put = (
  nodes: readonly Element[],
  prefix: Prefix,
  name: string,
  text: string,
): Written | null => {
  const before = valueOf(nodes, prefix, name);
  const place = placeOf(nodes, prefix, name);
  if (place && isSame(before, [text])) return null;
  const written = { name: `${prefix}:${name}`, before: joined(before), after: text };
  if (place?.kind === 'element' && isQualified(place.element) && setText(place.element, text)) {
    return written;
  }
  drop(nodes, prefix, name);
  add(nodes[0]!, prefix, name, text);
  return written;
};

const text: Apply<'text'> = ({ nodes }, { prefix, name, value }) =>
  put(nodes, prefix, name, value.text);

const list: Apply<'list'> = ({ nodes }, { prefix, name, value }) => {
  const before = valueOf(nodes, prefix, name);
  const place = placeOf(nodes, prefix, name);
  if (place && isSame(before, value.items)) return null;
  const written = {
    name: `${prefix}:${name}`,
    before: joined(before),
    after: joined(value.items)!,
  };
  const container = place?.kind === 'element' ? containerIn(place.element) : null;
  const items = container ? itemsIn(container) : [];
  const fits = items.length === value.items.length && items.some(isQualified);
  if (fits && items.every((item, i) => setText(item, value.items[i]!))) return written;
  drop(nodes, prefix, name);
  addList(nodes[0]!, prefix, name, 'Seq', value.items);
  return written;
};

/** A moment by its parts: to the second, what is finer, and the zone. */
const MOMENT = /^(\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d)(\.\d+)?(Z|[+-]\d\d:\d\d)?$/;

/** The same second told more finely, or with its zone, keeps what it has more of. */
const moment: Apply<'moment'> = ({ nodes }, { prefix, name, value }) => {
  const there = MOMENT.exec(valueOf(nodes, prefix, name)?.[0] ?? '');
  const own = MOMENT.exec(value.text);
  if (!there || !own || there[1] !== own[1] || (there[3] && own[3] && there[3] !== own[3])) {
    return put(nodes, prefix, name, value.text);
  }
  const [fine, zone] = [own[2] ?? there[2] ?? '', own[3] ?? there[3] ?? ''];
  return put(nodes, prefix, name, `${own[1]}${fine}${zone}`);
};

/** What an earlier run wrote is told beside it, so that another hand's is known from it. */
const RATED = 'Rated';
const UNRATED = '0';

/** A rating that another hand gave stays. */
const rating: Apply<'rating'> = ({ nodes, rated }, { prefix, name, value }) => {
  const there = valueOf(nodes, prefix, name)?.[0] ?? null;
  const free = there === null || there === (rated ?? UNRATED);
  if (!free || there === value.text) return null;
  put(nodes, 'gangway', RATED, value.text);
  return put(nodes, prefix, name, value.text);
};

const isDefault = (item: Element): boolean =>
  (item.getAttributeNS(XML, 'lang') ?? '').toLowerCase() === 'x-default';

const SAID = 'Said';

/** A sentence that a person wrote stays; one of an earlier run is renewed. */
const sentence: Apply<'sentence'> = ({ nodes, said }, { prefix, name, value }) => {
  const title = `${prefix}:${name}`;
  const begin = (container: Element): void => {
    const item = add(container, 'rdf', 'li', value.text, 'first');
    item.setAttributeNS(XML, 'xml:lang', 'x-default');
  };
  if (!has(nodes, prefix, name)) {
    begin(addList(nodes[0]!, prefix, name, 'Alt', []));
    put(nodes, 'gangway', SAID, value.text);
    return { name: title, before: null, after: value.text };
  }
  const [element] = propertyElements(nodes, prefix, name);
  const container = element && containerIn(element);
  // Not in languages: somebody’s own form, which stays.
  if (!container) return null;
  const own = itemsIn(container).find(isDefault);
  const before = own ? simpleText(own) : null;
  if (before === value.text || (own && before !== said)) return null;
  if (!own) begin(container);
  else if (!setText(own, value.text)) return null;
  put(nodes, 'gangway', SAID, value.text);
  return { name: title, before, after: value.text };
};

const KEYWORDS = 'Keywords';

/**
 * Adds what is not there, and takes away what an earlier run added and is not wanted any more. What
 * was there before stays, though it be the same word; what a person took away does not come back.
 */
const keywords: Apply<'keywords'> = ({ nodes, keywords: earlier }, { prefix, name, value }) => {
  const title = `${prefix}:${name}`;
  const [element] = propertyElements(nodes, prefix, name);
  const found = element && containerIn(element);
  // In a form of somebody's own.
  if (has(nodes, prefix, name) && !found) return null;
  const items = found ? itemsIn(found) : [];
  const there = items.map((item) => simpleText(item) ?? '');
  const fresh = value.items.filter((each) => !there.includes(each) && !earlier.includes(each));
  const gone = items.filter(
    (item, i) =>
      earlier.includes(there[i]!) && !value.items.includes(there[i]!) && !isQualified(item),
  );
  if (gone.length === 0 && fresh.length === 0) return null;
  const ours = [...earlier.filter((each) => value.items.includes(each)), ...fresh];
  drop(nodes, 'gangway', KEYWORDS);
  if (ours.length > 0) addList(nodes[0]!, 'gangway', KEYWORDS, 'Bag', ours);
  if (!found) {
    addList(nodes[0]!, prefix, name, 'Bag', fresh);
    return { name: title, before: null, after: fresh.join(', ') };
  }
  gone.forEach(remove);
  for (const each of fresh) add(found, 'rdf', 'li', each);
  const after = itemsIn(found).map((item) => simpleText(item) ?? '');
  return { name: title, before: there.join(', '), after: after.join(', ') };
};

const FIRED = 'Fired';

const flash: Apply<'flash'> = ({ nodes }, { prefix, name, value }) => {
  const after = value.fired ? 'True' : 'False';
  const said = value.fired ? 'fired' : 'did not fire';
  const [element] = propertyElements(nodes, prefix, name);
  // Its fields stand in a node of their own, or in the property itself.
  const inner = element && elementsIn(element).find((each) => is(each, 'rdf', 'Description'));
  const structure = inner ?? element;
  const holders = structure ? [structure] : [];
  const before = valueOf(holders, 'exif', FIRED)?.[0] ?? null;
  if (before === after) return null;
  const written = { name: `${prefix}:${name}`, before: before === null ? null : before === 'True' ? 'fired' : 'did not fire', after: said }; // prettier-ignore
  if (structure) {
    put(holders, 'exif', FIRED, after);
    return written;
  }
  drop(nodes, prefix, name);
  const made = add(nodes[0]!, prefix, name);
  made.setAttributeNS(NAMESPACES.rdf, `${prefixAt(made, 'rdf')}:parseType`, 'Resource');
  add(made, 'exif', FIRED, after);
  return written;
};

/** Told of an earlier run, and kept whatever is wanted now. */
const REMEMBERED: ReadonlySet<string> = new Set([SAID, RATED, KEYWORDS]);

const APPLY = { text, list, moment, rating, sentence, keywords, flash };

const isOurs =
  (wanted: readonly Wanted[]) =>
  (uri: string, name: string): boolean =>
    uri === NAMESPACES.gangway ||
    wanted.some((each) => NAMESPACES[each.prefix] === uri && each.name === name);

/** Kinds of which what a person wrote stays. */
const STAYING: ReadonlySet<string> = new Set(['sentence', 'keywords', 'rating', 'moment']);

/** Own properties of an earlier run that nothing is said of any more. */
function dropStale(nodes: readonly Element[], wanted: readonly Wanted[]): Written[] {
  const wantedNames = new Set(wanted.filter(({ prefix }) => prefix === 'gangway').map(({ name }) => name)); // prettier-ignore
  const there = namesIn(nodes, NAMESPACES.gangway);
  const prefix: Prefix = 'gangway';
  return [...there]
    .filter((name) => !wantedNames.has(name) && !REMEMBERED.has(name))
    .map((name) => {
      const before = joined(valueOf(nodes, prefix, name));
      drop(nodes, prefix, name);
      return { name: `${prefix}:${name}`, before, after: '' };
    });
}

function merged(document: Document, existing: string, wanted: readonly Wanted[]): Merged {
  const rdf = rdfOf(document);
  let nodes = nodesOf(rdf);
  if (nodes.length === 0) {
    add(rdf, 'rdf', 'Description');
    nodes = nodesOf(rdf);
    const name = `${prefixAt(rdf, 'rdf')}:about`;
    nodes[0]!.setAttributeNS(NAMESPACES.rdf, name, '');
  }
  const before: Before = {
    nodes,
    keywords: valueOf(nodes, 'gangway', KEYWORDS) ?? [],
    said: valueOf(nodes, 'gangway', SAID)?.[0] ?? null,
    rated: valueOf(nodes, 'gangway', RATED)?.[0] ?? null,
  };
  const stays = otherNames(nodes, isOurs(wanted));
  const written = wanted.flatMap((each) => {
    const done = (APPLY[each.value.kind] as unknown as Apply<never>)(before, each as never);
    return done ? [done] : [];
  });
  for (const dropped of dropStale(nodes, wanted)) written.push(dropped);
  const kept = wanted.filter(
    ({ prefix, name, value }) =>
      STAYING.has(value.kind) &&
      has(nodes, prefix, name) &&
      !written.some((each) => each.name === `${prefix}:${name}`),
  );
  return {
    text: written.length > 0 ? serialized(document) : existing,
    changed: written.length > 0,
    written,
    stays: [...stays, ...kept.map(({ prefix, name }) => `${prefix}:${name}`)],
  };
}

/**
 * A sidecar that says what is wanted, and everything else that an existing one says.
 * @param existing null: there is none
 */
export function mergeSidecar(existing: string | null, wanted: readonly Wanted[]): MergeResult {
  try {
    const from = existing ?? EMPTY;
    return { ok: true, merged: merged(parseXml(from), from, wanted) };
  } catch (error) {
    if (error instanceof Unreadable) return { ok: false, message: error.message };
    throw error;
  }
}
