/** What matching is given, and what it finds. */

export interface PictureFile {
  /** Unique among the files. */
  readonly key: string;
  /** By which files of one camera are put in order. */
  readonly name: string;
  /** What the camera’s clock says, s of a clock without zones; null: the file does not tell. */
  readonly clockS: number | null;
  /** Tells cameras apart; '' where the file does not tell. */
  readonly camera: string;
  readonly timeS: number | null;
  readonly iso: number | null;
}

export interface LogLine {
  readonly id: string;
  /** s of the same kind of clock, local to where the line was logged. */
  readonly clockS: number;
  /** Which of a bracket: the order of those that were logged with one tap. */
  readonly bracket: number | null;
  readonly timeS: number | null;
  readonly iso: number | null;
}

export interface Fixed {
  /** A file’s key, and the line it belongs to; null: it belongs to none. */
  readonly file: string;
  readonly line: string | null;
}

/** How far ahead of the log’s clock a camera’s is. */
export type Offset =
  | { readonly kind: 'found'; readonly offsetS: number }
  | { readonly kind: 'given'; readonly offsetS: number }
  /** More than one fits about as well; the likeliest comes first. */
  | { readonly kind: 'undecided'; readonly offsetsS: readonly number[] };

export interface Pair {
  readonly file: string;
  /** Null: it belongs to no line. */
  readonly line: string | null;
  readonly sure: boolean;
  readonly by: 'hand' | 'data';
  /** How likely, 0 to 1. */
  readonly likely: number;
  readonly doubt?: Doubt;
}

/** Why a file with a line is not sure. */
export interface Doubt {
  /**
   * `exposure`: it was exposed otherwise than its line says; `beside`: another file or line, alike
   * and seconds apart, is left over; `times`: others fit about as well.
   */
  readonly why: 'exposure' | 'beside' | 'times';
  /** The line that fits next best; null where it is none. */
  readonly other: string | null;
}

export interface Matched {
  /** One for every file. */
  readonly pairs: readonly Pair[];
  readonly offsets: Readonly<Record<string, Offset>>;
  /** So many files and lines that not every clock was tried: nothing is sure then. */
  readonly stopped: boolean;
}

export interface MatchOptions {
  readonly fixed?: readonly Fixed[];
  /** By camera. */
  readonly offsetsS?: Readonly<Record<string, number>>;
}
