import { create, type Font } from 'fontkit';
import { FACES_EACH } from './faces.js';
import { unpacked } from './woff.js';

/** A piece of text in one file of the typeface. */
export interface Run {
  readonly face: number;
  readonly text: string;
}

/** The letters that things are set in, and how much room they take. */
export interface Typeface {
  readonly files: readonly Uint8Array[];
  /** A text cut where another file of the typeface has to go on. */
  runs(text: string, strong?: boolean): Run[];
  /** Room a text takes at a size, mm. */
  widthMm(text: string, sizeMm: number, strong?: boolean): number;
  /** Of these letters those that no file has. */
  missing(text: string): string[];
}

/** @param packed files of the typeface, see FACE_FILES; the strong ones may be left out */
export function typeface(packed: readonly Uint8Array[]): Typeface {
  const files = packed.map(unpacked);
  const fonts = files.map((bytes) => create(bytes as Buffer) as Font);
  const found = (letter: string, strong: boolean): number => {
    const from = strong && fonts.length > FACES_EACH ? FACES_EACH : 0;
    const end = Math.min(fonts.length, from + FACES_EACH);
    for (let i = from; i < end; i++) {
      if (fonts[i]!.hasGlyphForCodePoint(letter.codePointAt(0)!)) return i;
    }
    return -1;
  };
  const runs = (text: string, strong = false): Run[] => {
    const all: Run[] = [];
    for (const letter of text.normalize('NFC')) {
      const at = found(letter, strong);
      const face = at < 0 ? (strong && fonts.length > FACES_EACH ? FACES_EACH : 0) : at;
      const last = all.at(-1);
      if (last?.face === face) all[all.length - 1] = { face, text: last.text + letter };
      else all.push({ face, text: letter });
    }
    return all;
  };
  const widths = new Map<string, number>();
  const emOf = (word: string, strong: boolean): number => {
    const key = `${strong ? 's' : 'p'}${word}`;
    const known = widths.get(key);
    if (known !== undefined) return known;
    const em = runs(word, strong).reduce((sum, { face, text: part }) => {
      const font = fonts[face]!;
      return sum + font.layout(part).advanceWidth / font.unitsPerEm;
    }, 0);
    widths.set(key, em);
    return em;
  };
  return {
    files,
    runs,
    // Word by word: the same words come again and again, and nothing is kerned across a space.
    widthMm: (text, sizeMm, strong = false) => {
      const words = text.split(' ');
      const em = words.reduce((sum, word) => sum + (word === '' ? 0 : emOf(word, strong)), 0);
      return (em + (words.length - 1) * emOf(' ', strong)) * sizeMm;
    },
    missing: (text) =>
      [...new Set([...text.normalize('NFC')])].filter((each) => found(each, false) < 0),
  };
}
