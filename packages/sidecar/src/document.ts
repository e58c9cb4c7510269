import { DOMParser, XMLSerializer, type Document, type Element } from '@xmldom/xmldom';
import { SaxesParser } from 'saxes';
import { NAMESPACES, XML, XMLNS, type Prefix } from './namespaces.js';

/** A sidecar’s XML: read with care, looked into and changed. */

/** Largest sidecar read, in bytes; real ones hold a few thousand. */
export const LARGEST_SIDECAR_BYTES = 4_000_000;
const DEEPEST = 100;
/** Elements, attributes and the like; one with thousands of strokes of a brush has some tens of thousands. */
export const MOST_MEMBERS = 200_000;
const MALFORMED = 'It is not well-formed XML.';

/** Why a sidecar is left as it is. */
export class Unreadable extends Error {}

/** Text of a sidecar’s bytes, in UTF-8 or UTF-16 as its mark says. */
export function sidecarText(bytes: Uint8Array): string {
  if (bytes.length > LARGEST_SIDECAR_BYTES) {
    throw new Unreadable(`It is larger than ${LARGEST_SIDECAR_BYTES / 1e6} MB.`);
  }
  const [a, b] = bytes;
  const encoding = a === 0xff && b === 0xfe ? 'utf-16le' : a === 0xfe && b === 0xff ? 'utf-16be' : 'utf-8'; // prettier-ignore
  try {
    return new TextDecoder(encoding, { fatal: true }).decode(bytes);
  } catch {
    throw new Unreadable('It is not text in UTF-8 or UTF-16.');
  }
}

/**
 * Reads a sidecar once from its first character to its last, building nothing: what is not well-formed,
 * declares a document type, or is deeper or fuller than any sidecar, ends there.
 * @throws Unreadable
 */
function looked(text: string): void {
  let [depth, members] = [0, 0];
  const refuse = (why: string): never => {
    throw new Unreadable(why);
  };
  const member = (): void => {
    if (++members > MOST_MEMBERS) refuse(`It holds more than ${MOST_MEMBERS} parts.`);
  };
  const parser = new SaxesParser({ xmlns: false });
  parser.on('error', () => refuse(MALFORMED));
  parser.on('doctype', () => refuse('It declares a document type; sidecars have none.'));
  parser.on('opentagstart', () => {
    if (++depth > DEEPEST) refuse(`It is nested deeper than ${DEEPEST} levels.`);
    member();
  });
  parser.on('closetag', () => void depth--);
  for (const part of ['attribute', 'comment', 'cdata', 'processinginstruction'] as const) {
    parser.on(part, member);
  }
  parser.write(text).close();
}

/** @throws Unreadable */
export function parseXml(given: string): Document {
  const text = given.replace(/^\uFEFF/, '');
  looked(text);
  try {
    const parser = new DOMParser({
      onError: (level, message) => {
        if (level !== 'warning') throw new Error(message);
      },
    });
    return parser.parseFromString(text, 'application/xml');
  } catch {
    throw new Unreadable(MALFORMED);
  }
}

export const serialized = (document: Document): string => {
  const text = new XMLSerializer().serializeToString(document);
  const said = text.replace(/^<\?xml[^?]*\?>\s*/, '');
  return `<?xml version="1.0" encoding="UTF-8"?>\n${said}${said.endsWith('\n') ? '' : '\n'}`;
};

export const elementsIn = (parent: Element | Document): Element[] => {
  const found: Element[] = [];
  for (let node = parent.firstChild; node; node = node.nextSibling) {
    if (node.nodeType === 1) found.push(node as Element);
  }
  return found;
};

export const is = (element: Element, prefix: Prefix, name: string): boolean =>
  element.namespaceURI === NAMESPACES[prefix] && element.localName === name;

/** The one rdf:RDF of a sidecar. @throws Unreadable */
export function rdfOf(document: Document): Element {
  const all = document.getElementsByTagNameNS(NAMESPACES.rdf, 'RDF');
  const found = all.item(0);
  if (!found || all.length > 1) {
    throw new Unreadable(found ? 'It holds more than one description of a picture.' : 'It is XML, but not a sidecar: it has no rdf:RDF.'); // prettier-ignore
  }
  return found;
}

const aboutOf = (node: Element): string => node.getAttributeNS(NAMESPACES.rdf, 'about') ?? '';

/** The nodes that tell of the picture itself: all that are about the same as the first. */
export function nodesOf(rdf: Element): Element[] {
  const all = elementsIn(rdf);
  const named = all.filter((each) => !each.hasAttributeNS(NAMESPACES.rdf, 'nodeID'));
  const about = named[0] ? aboutOf(named[0]) : '';
  return named.filter((each) => aboutOf(each) === about);
}

const isElement = (node: unknown): node is Element =>
  node !== null && (node as Element).nodeType === 1;

/** Prefixes that are bound where an element stands. */
function bindingsAt(element: Element): Map<string, string> {
  const found = new Map<string, string>();
  for (let at: unknown = element; isElement(at); at = at.parentNode) {
    for (let i = 0; i < at.attributes.length; i++) {
      const { nodeName, nodeValue } = at.attributes.item(i)!;
      const name = nodeName.startsWith('xmlns:') ? nodeName.slice('xmlns:'.length) : null;
      if (name !== null && !found.has(name)) found.set(name, nodeValue ?? '');
    }
  }
  return found;
}

/** The prefix of a namespace where an element stands; declared on `holder` where there is none. */
export function prefixAt(element: Element, prefix: Prefix, holder: Element = element): string {
  const uri = NAMESPACES[prefix];
  const bound = bindingsAt(element);
  for (const [name, at] of bound) if (at === uri) return name;
  for (let n = 1; ; n++) {
    const name = n === 1 ? prefix : `${prefix}${n}`;
    if (bound.has(name)) continue;
    holder.setAttributeNS(XMLNS, `xmlns:${name}`, uri);
    return name;
  }
}

const isBlank = (node: { nodeType: number; nodeValue: string | null } | null): boolean =>
  node?.nodeType === 3 && /^\s*$/.test(node.nodeValue ?? '');

/** The element straight under rdf:RDF that another lies in. */
function nodeOf(element: Element): Element {
  let at = element;
  while (isElement(at.parentNode) && !is(at.parentNode, 'rdf', 'RDF')) at = at.parentNode;
  return at;
}

/** A new element under another, on a line of its own, the first or the last. */
export function add(
  parent: Element,
  prefix: Prefix,
  name: string,
  text?: string,
  place: 'first' | 'last' = 'last',
): Element {
  const document = parent.ownerDocument!;
  const own = prefixAt(parent, prefix, nodeOf(parent));
  const made = document.createElementNS(NAMESPACES[prefix], `${own}:${name}`);
  if (text !== undefined) {
    made.appendChild(document.createTextNode(text));
    // A language told farther out is that of other words.
    if (speaks(parent)) made.setAttributeNS(XML, 'xml:lang', '');
  }
  let depth = 0;
  for (let at: unknown = parent; isElement(at); at = at.parentNode) depth++;
  const line = (deep: number) => document.createTextNode(`\n${'  '.repeat(deep)}`);
  const last = parent.lastChild;
  const before = place === 'first' ? parent.firstChild : isBlank(last) ? last : null;
  parent.insertBefore(line(depth), before);
  parent.insertBefore(made, before);
  if (!isBlank(parent.lastChild)) parent.appendChild(line(depth - 1));
  return made;
}

/** Whether a language is set on an element or around it. */
function speaks(element: Element): boolean {
  for (let at: unknown = element; isElement(at); at = at.parentNode) {
    if (at.hasAttributeNS(XML, 'lang')) return at.getAttributeNS(XML, 'lang') !== '';
  }
  return false;
}
