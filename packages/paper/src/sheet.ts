/** A drawing in true millimetres, origin at the top left, y down: for paper, not for the screen. */
export interface Sheet {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly title: string;
  readonly lines: readonly SheetLine[];
  readonly texts: readonly SheetText[];
}

export interface SheetLine {
  readonly x1: number;
  readonly y1: number;
  readonly x2: number;
  readonly y2: number;
  readonly strokeMm: number;
}

export interface SheetText {
  readonly x: number;
  readonly y: number;
  readonly text: string;
  readonly sizeMm: number;
  readonly anchor: 'start' | 'middle' | 'end';
}
