import type { Element } from '@xmldom/xmldom';
import { add, elementsIn, is, prefixAt } from './document.js';
import { NAMESPACES, XML, XMLNS, type Prefix } from './namespaces.js';

/** Properties of a picture as RDF/XML has them: attributes, or elements of several forms. */

const CONTAINERS = ['Seq', 'Bag', 'Alt'] as const;

/** The elements of a property, in all the nodes about the picture. */
export const propertyElements = (
  nodes: readonly Element[],
  prefix: Prefix,
  name: string,
): Element[] => nodes.flatMap((node) => elementsIn(node).filter((each) => is(each, prefix, name)));

const attributeOf = (nodes: readonly Element[], prefix: Prefix, name: string): string | null => {
  const holder = nodes.find((node) => node.hasAttributeNS(NAMESPACES[prefix], name));
  return holder?.getAttributeNS(NAMESPACES[prefix], name) ?? null;
};

const isContainer = (element: Element): boolean =>
  CONTAINERS.some((name) => is(element, 'rdf', name));

export const containerIn = (property: Element): Element | null =>
  elementsIn(property).find(isContainer) ?? null;

export const itemsIn = (container: Element): Element[] =>
  elementsIn(container).filter((each) => is(each, 'rdf', 'li'));

/** Text of a simple value, with or without qualifiers; null where it is no text. */
export function simpleText(element: Element): string | null {
  const inner = elementsIn(element);
  if (inner.length === 0) {
    const value = element.getAttributeNS(NAMESPACES.rdf, 'value');
    return value ?? element.textContent;
  }
  const value =
    inner.find((each) => is(each, 'rdf', 'value')) ??
    elementsIn(inner[0]!).find((each) => is(each, 'rdf', 'value'));
  return value ? value.textContent : null;
}

/** Whether a property is there in any form. */
export const has = (nodes: readonly Element[], prefix: Prefix, name: string): boolean =>
  attributeOf(nodes, prefix, name) !== null || propertyElements(nodes, prefix, name).length > 0;

/** What a property says, for comparing and showing; null where it is not there. */
export function valueOf(nodes: readonly Element[], prefix: Prefix, name: string): string[] | null {
  const attribute = attributeOf(nodes, prefix, name);
  if (attribute !== null) return [attribute];
  const [element] = propertyElements(nodes, prefix, name);
  if (!element) return null;
  const container = containerIn(element);
  if (container) return itemsIn(container).map((item) => simpleText(item) ?? '…');
  return [simpleText(element) ?? '…'];
}

/** The one place where a property stands, where there is one only. */
export type Place =
  | { readonly kind: 'attribute'; readonly of: Element }
  | { readonly kind: 'element'; readonly element: Element };

/** @returns null where it stands nowhere, or more than once */
export function placeOf(nodes: readonly Element[], prefix: Prefix, name: string): Place | null {
  const elements = propertyElements(nodes, prefix, name);
  const holders = nodes.filter((node) => node.hasAttributeNS(NAMESPACES[prefix], name));
  if (elements.length + holders.length !== 1) return null;
  return elements[0]
    ? { kind: 'element', element: elements[0] }
    : { kind: 'attribute', of: holders[0]! };
}

/**
 * Writes another text where a simple value stands; what qualifies it stays.
 * @returns false where it is no simple value
 */
export function setText(element: Element, text: string): boolean {
  const inner = elementsIn(element);
  const put = (at: Element): boolean => {
    at.textContent = text;
    return true;
  };
  if (inner.length === 0) {
    if (!element.hasAttributeNS(NAMESPACES.rdf, 'value')) return put(element);
    element.setAttributeNS(NAMESPACES.rdf, `${prefixAt(element, 'rdf')}:value`, text);
    return true;
  }
  const value =
    inner.find((each) => is(each, 'rdf', 'value')) ??
    elementsIn(inner[0]!).find((each) => is(each, 'rdf', 'value'));
  return value ? put(value) : false;
}

/** Whether anything qualifies a value. */
export const isQualified = (element: Element): boolean =>
  elementsIn(element).some((each) => !is(each, 'rdf', 'value') && !isContainer(each)) ||
  elementsIn(element).some((each) => is(each, 'rdf', 'value')) ||
  element.hasAttributeNS(XML, 'lang') ||
  element.hasAttributeNS(NAMESPACES.rdf, 'value');

/** Takes a property away, in every form it has. */
export function drop(nodes: readonly Element[], prefix: Prefix, name: string): void {
  for (const node of nodes) node.removeAttributeNS(NAMESPACES[prefix], name);
  for (const element of propertyElements(nodes, prefix, name)) remove(element);
}

/** Takes an element away with the space that set it on a line of its own. */
export function remove(element: Element): void {
  const before = element.previousSibling;
  if (before?.nodeType === 3 && /^\s*$/.test(before.nodeValue ?? '')) {
    before.parentNode!.removeChild(before);
  }
  element.parentNode!.removeChild(element);
}

/** Every property of the picture: its namespace, its name, and how it is written. */
function* properties(
  nodes: readonly Element[],
): Generator<{ uri: string; name: string; said: string }> {
  for (const node of nodes) {
    for (let i = 0; i < node.attributes.length; i++) {
      const { namespaceURI: uri, localName, nodeName } = node.attributes.item(i)!;
      if (!uri || uri === XML || uri === XMLNS) continue;
      yield { uri, name: localName!, said: nodeName };
    }
    for (const { namespaceURI: uri, localName, nodeName } of elementsIn(node)) {
      yield { uri: uri ?? '', name: localName!, said: nodeName };
    }
  }
}

/** Names of the properties that are not ours, once each, as they are written. */
export const otherNames = (
  nodes: readonly Element[],
  isOurs: (uri: string, name: string) => boolean,
): string[] => [
  ...new Set(
    [...properties(nodes)]
      .filter(({ uri, name }) => uri !== NAMESPACES.rdf && !isOurs(uri, name))
      .map(({ said }) => said),
  ),
];

/** Names of the properties of one namespace. */
export const namesIn = (nodes: readonly Element[], namespace: string): Set<string> =>
  new Set([...properties(nodes)].filter(({ uri }) => uri === namespace).map(({ name }) => name));

/** A list in a container of its own. */
export function addList(
  node: Element,
  prefix: Prefix,
  name: string,
  kind: (typeof CONTAINERS)[number],
  items: readonly string[],
): Element {
  const container = add(add(node, prefix, name), 'rdf', kind);
  for (const item of items) add(container, 'rdf', 'li', item);
  return container;
}
