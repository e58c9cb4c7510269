import type { FoundFile } from './dropped-pictures.js';

/** Pictures on their way from one page to another. */
let handed: readonly FoundFile[] | null = null;

export const handPictures = (files: readonly FoundFile[]): void => {
  handed = files;
};

/** What was handed over, once. */
export function takeHanded(): readonly FoundFile[] | null {
  const files = handed;
  handed = null;
  return files;
}
