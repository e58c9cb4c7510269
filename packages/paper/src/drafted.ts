import { MARGIN_MM, PROOF_MM } from './papers.js';
import type { Sheet, SheetLine, SheetShape, SheetText } from './sheet.js';

/** A page that things are drawn on from the top down. */
export function draftedOn(
  size: { readonly widthMm: number; readonly heightMm: number },
  title: string,
) {
  const lines: SheetLine[] = [];
  const texts: SheetText[] = [];
  const shapes: SheetShape[] = [];
  const sheet: Sheet = { ...size, title, lines, texts, shapes };
  return {
    sheet,
    text: (
      x: number,
      y: number,
      text: string,
      sizeMm = 2.4,
      anchor: SheetText['anchor'] = 'start',
      look: Pick<SheetText, 'strong' | 'grey'> = {},
    ) => void texts.push({ x, y, text, sizeMm, anchor, ...look }),
    rule: (x1: number, y1: number, x2: number, y2: number, strokeMm = 0.15) =>
      void lines.push({ x1, y1, x2, y2, strokeMm }),
    shape: (shape: SheetShape) => void shapes.push(shape),
  };
}

export type Drafted = ReturnType<typeof draftedOn>;

/** The line that proves the print is true, with what to do about it. */
export function proofLine({ text, rule }: Drafted, y: number): void {
  const end = MARGIN_MM + PROOF_MM;
  rule(MARGIN_MM, y, end, y, 0.3);
  rule(MARGIN_MM, y - 1.5, MARGIN_MM, y + 1.5, 0.3);
  rule(end, y - 1.5, end, y + 1.5, 0.3);
  text(
    MARGIN_MM,
    y + 4,
    `This line is ${PROOF_MM} mm long. Print at 100 %, not fitted to the page; measure it first.`,
  );
}
