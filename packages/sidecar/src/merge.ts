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
  isPlain,
  namesIn,
  itemsIn,
  otherNames,
  propertyElements,
  remove,
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

/** Names that tell which of the keywords and sentences were written by an earlier run. */
const KEYWORD_NAMES = ['Station', 'Job', 'Rig'] as const;

interface Before {
  readonly nodes: readonly Element[];
  readonly keywords: ReadonlySet<string>;
  readonly said: string | null;
}

type Apply<K extends Wanted['value']['kind']> = (
  before: Before,
  wanted: Wanted & { value: Extract<Wanted['value'], { kind: K }> },
) => Written | null;

const joined = (value: readonly string[] | null): string | null => value && value.join(', ');

const replaced = (
  { nodes }: Before,
  { prefix, name }: Wanted,
  after: readonly string[],
  write: (node: Element) => void,
): Written | null => {
  const before = valueOf(nodes, prefix, name);
  const same = before?.length === after.length && before.every((each, i) => each === after[i]);
  if (same && isPlain(nodes, prefix, name)) return null;
  drop(nodes, prefix, name);
  write(nodes[0]!);
  return { name: `${prefix}:${name}`, before: joined(before), after: joined(after)! };
};

const text: Apply<'text'> = (before, wanted) =>
  replaced(before, wanted, [wanted.value.text], (node) =>
    add(node, wanted.prefix, wanted.name, wanted.value.text),
  );

const list: Apply<'list'> = (before, wanted) =>
  replaced(before, wanted, wanted.value.items, (node) =>
    addList(node, wanted.prefix, wanted.name, 'Seq', wanted.value.items),
  );

const isDefault = (item: Element): boolean =>
  (item.getAttributeNS(XML, 'lang') ?? '').toLowerCase() === 'x-default';

/** A sentence that a person wrote stays; one of an earlier run is renewed. */
const sentence: Apply<'sentence'> = ({ nodes, said }, { prefix, name, value }) => {
  const title = `${prefix}:${name}`;
  const put = (container: Element): void => {
    const item = add(container, 'rdf', 'li', value.text, 'first');
    item.setAttributeNS(XML, 'xml:lang', 'x-default');
  };
  if (!has(nodes, prefix, name)) {
    put(addList(nodes[0]!, prefix, name, 'Alt', []));
    return { name: title, before: null, after: value.text };
  }
  const [element] = propertyElements(nodes, prefix, name);
  const container = element && containerIn(element);
  // Not in languages: somebody’s own form, which stays.
  if (!container) return null;
  const own = itemsIn(container).find(isDefault);
  const before = own ? simpleText(own) : null;
  if (before === value.text || (own && before !== said)) return null;
  if (own) remove(own);
  put(container);
  return { name: title, before, after: value.text };
};

const keywords: Apply<'keywords'> = ({ nodes, keywords: earlier }, { prefix, name, value }) => {
  const title = `${prefix}:${name}`;
  if (!has(nodes, prefix, name)) {
    if (value.items.length === 0) return null;
    addList(nodes[0]!, prefix, name, 'Bag', value.items);
    return { name: title, before: null, after: value.items.join(', ') };
  }
  const [element] = propertyElements(nodes, prefix, name);
  const container = element && containerIn(element);
  if (!container) return null;
  const there = itemsIn(container).map((item) => simpleText(item) ?? '');
  const gone = itemsIn(container).filter((_, i) => earlier.has(there[i]!) && !value.items.includes(there[i]!)); // prettier-ignore
  const fresh = value.items.filter((each) => !there.includes(each));
  if (gone.length === 0 && fresh.length === 0) return null;
  gone.forEach(remove);
  for (const each of fresh) add(container, 'rdf', 'li', each);
  const after = itemsIn(container).map((item) => simpleText(item) ?? '');
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
    drop(holders, 'exif', FIRED);
    add(structure, 'exif', FIRED, after);
    return written;
  }
  drop(nodes, prefix, name);
  const made = add(nodes[0]!, prefix, name);
  made.setAttributeNS(NAMESPACES.rdf, `${prefixAt(made, 'rdf')}:parseType`, 'Resource');
  add(made, 'exif', FIRED, after);
  return written;
};

const APPLY = { text, list, sentence, keywords, flash };

const isOurs =
  (wanted: readonly Wanted[]) =>
  (uri: string, name: string): boolean =>
    uri === NAMESPACES.gangway ||
    wanted.some((each) => NAMESPACES[each.prefix] === uri && each.name === name);

/** Own properties of an earlier run that nothing is said of any more. */
function dropStale(nodes: readonly Element[], wanted: readonly Wanted[]): Written[] {
  const wantedNames = new Set(wanted.filter(({ prefix }) => prefix === 'gangway').map(({ name }) => name)); // prettier-ignore
  const there = namesIn(nodes, NAMESPACES.gangway);
  const prefix: Prefix = 'gangway';
  return [...there]
    .filter((name) => !wantedNames.has(name))
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
    keywords: new Set(KEYWORD_NAMES.flatMap((name) => valueOf(nodes, 'gangway', name) ?? [])),
    said: valueOf(nodes, 'gangway', 'Said')?.[0] ?? null,
  };
  const stays = otherNames(nodes, isOurs(wanted));
  const written = wanted.flatMap((each) => {
    const done = (APPLY[each.value.kind] as unknown as Apply<never>)(before, each as never);
    return done ? [done] : [];
  });
  for (const dropped of dropStale(nodes, wanted)) written.push(dropped);
  const kept = wanted.filter(
    ({ prefix, name, value }) =>
      (value.kind === 'sentence' || value.kind === 'keywords') &&
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
