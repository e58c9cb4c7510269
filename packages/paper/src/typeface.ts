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

/** Signs the typeface does not have, as they are said without it. */
const SAID: Readonly<Record<string, string>> = {
  '∞': 'infinity',
  '⅓': '1/3',
  '⅔': '2/3',
  '→': '>',
};

/** A text with the signs that the typeface lacks said in its letters: 1⅓ is 1 1/3. */
const inLetters = (text: string): string =>
  text
    .normalize('NFC')
    .replace(/(\d)?([∞⅓⅔→])/g, (_, digit: string | undefined, sign: string) =>
      digit === undefined ? SAID[sign]! : `${digit} ${SAID[sign]!}`,
    );

/**
 * @param packed files of the typeface, see FACE_FILES; the strong ones may be left out
 * @param more files for letters that it does not have, see MORE_FILES
 */
export function typeface(
  packed: readonly Uint8Array[],
  more: readonly Uint8Array[] = [],
): Typeface {
  const files = [...packed, ...more].map(unpacked);
  const fonts = files.map((bytes) => create(bytes as Buffer) as Font);
  const strongFrom = packed.length > FACES_EACH ? FACES_EACH : 0;
  const others = more.map((_, i) => packed.length + i);
  const own = (from: number): number[] =>
    Array.from({ length: Math.min(FACES_EACH, packed.length - from) }, (_, i) => from + i);
  const order = { plain: [...own(0), ...others], strong: [...own(strongFrom), ...others] };
  const found = (letter: string, strong: boolean): number =>
    order[strong ? 'strong' : 'plain'].find((i) =>
      fonts[i]!.hasGlyphForCodePoint(letter.codePointAt(0)!),
    ) ?? -1;
  const runs = (text: string, strong = false): Run[] => {
    const all: Run[] = [];
    for (const letter of inLetters(text)) {
      const at = found(letter, strong);
      const face = at < 0 ? (strong ? strongFrom : 0) : at;
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
      const words = inLetters(text).split(' ');
      const em = words.reduce((sum, word) => sum + (word === '' ? 0 : emOf(word, strong)), 0);
      return (em + (words.length - 1) * emOf(' ', strong)) * sizeMm;
    },
    missing: (text) => [...new Set([...inLetters(text)])].filter((each) => found(each, false) < 0),
  };
}
