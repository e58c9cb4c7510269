import { KIND_WORDS, mountsOf, summaryOf, type KitItem } from '@gangway/station';

/** What an item is found by, in small letters. */
export function itemText(document: KitItem): string {
  const { name, kind, notes = '' } = document;
  const words = [name, KIND_WORDS[kind].one, summaryOf(document), mountsOf(document), notes];
  return words.join(' ').toLowerCase();
}
