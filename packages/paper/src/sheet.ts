/** A drawing in true millimetres, origin at the top left, y down: for paper, not for the screen. */
export interface Sheet {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly title: string;
  readonly lines: readonly SheetLine[];
  readonly texts: readonly SheetText[];
  /** Drawn under lines and texts, in order. */
  readonly shapes?: readonly SheetShape[];
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
  readonly strong?: boolean;
  /** 0 black to 1 white; black when left out. */
  readonly grey?: number;
}

/** A line through points, or a surface inside them. */
export interface SheetShape {
  readonly points: readonly (readonly [number, number])[];
  readonly closed?: boolean;
  /** Not drawn round when left out. */
  readonly strokeMm?: number;
  /** 0 black to 1 white; not filled when left out. */
  readonly fill?: number;
  /** Drawn and left out by turns, mm. */
  readonly dashMm?: number;
  readonly grey?: number;
}
