import type { Drafted } from './drafted.js';
import type { Typeface } from './typeface.js';

/** A text broken into lines that fit; a word that is longer than a line is broken too. */
export function wrapped(
  text: string,
  widthMm: number,
  sizeMm: number,
  face: Typeface,
  strong = false,
): string[] {
  const lines: string[] = [];
  let line = '';
  const fits = (part: string): boolean => face.widthMm(part, sizeMm, strong) <= widthMm;
  for (const word of text.split(/\s+/).filter(Boolean)) {
    const longer = line === '' ? word : `${line} ${word}`;
    if (fits(longer)) {
      line = longer;
      continue;
    }
    if (line !== '') lines.push(line);
    line = word;
    while (!fits(line) && line.length > 1) {
      let cut = line.length - 1;
      while (cut > 1 && !fits(line.slice(0, cut))) cut--;
      lines.push(line.slice(0, cut));
      line = line.slice(cut);
    }
  }
  return line === '' ? lines : [...lines, line];
}

/** A piece of a page that is not parted: how high it is, and how it is drawn. */
export interface Block {
  readonly heightMm: number;
  readonly draw: (page: Drafted, x: number, y: number) => void;
  /** Begins with the next block, never alone at the foot. */
  readonly withNext?: boolean;
}

export interface Column {
  readonly x: number;
  readonly top: number;
  readonly bottom: number;
}

/**
 * Lays blocks into columns one after the other.
 * @param column the n-th column, counted over all pages, with its page
 */
export function flowed(
  blocks: readonly Block[],
  column: (index: number) => Column & { readonly page: Drafted },
): void {
  let at = 0;
  let { x, top: y, bottom, page } = column(at);
  let fresh = true;
  blocks.forEach((block, i) => {
    const next = block.withNext ? (blocks[i + 1]?.heightMm ?? 0) : 0;
    if (!fresh && y + block.heightMm + next > bottom + 1e-9) {
      at += 1;
      ({ x, top: y, bottom, page } = column(at));
    }
    block.draw(page, x, y);
    y += block.heightMm;
    fresh = false;
  });
}
