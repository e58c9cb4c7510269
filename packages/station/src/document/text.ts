/** Half of a character: a surrogate without its other half, which no database or file can hold. */
const HALF = /\p{Surrogate}/u;

/** Whether text can be written in UTF-8 and read again. */
export const isWellFormed = (text: string): boolean => !HALF.test(text);

const letters = new Intl.Segmenter('en', { granularity: 'grapheme' });

/** The beginning of a text, cut between characters as people see them: no half of a flag or family. */
export function cutText(text: string, most: number): string {
  if (text.length <= most) return text;
  let end = 0;
  // One character may be longer than what is asked for; what is looked at stays bounded all the same.
  for (const { index, segment } of letters.segment(text.slice(0, most + 64))) {
    if (index + segment.length > most) break;
    end = index + segment.length;
  }
  return text.slice(0, end);
}
