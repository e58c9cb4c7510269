/**
 * Cells of a table for other programs. One that such a program would take for a formula is written with
 * an apostrophe before it, which those programs read as “text”; here it is taken off again. Every cell
 * written so reads back as it was. Source: OWASP, CSV Injection (signs at the start of a cell).
 */

/** What a program may pass over before it looks at the first sign: spaces, line ends, marks that show nothing. */
const PASSED =
  '[\\s\\u0000-\\u001f\\u007f-\\u00a0\\u00ad\\u200b-\\u200f\\u2028-\\u202f\\u2060-\\u2064\\ufeff]*';
/** Signs, those of full width and the minus of typesetting too. */
const SIGN = '[=+\\-@\\u2212\\uff0b\\uff0d\\uff1d\\uff20]';
const FORMULA = new RegExp(`^(?:[\\t\\r']|${PASSED}${SIGN})`);
/** A figure with its sign stays a figure. */
const FIGURE = /^[+-]?(?:\d+(?:[.,]\d*)?|[.,]\d+)(?:e[+-]?\d+)?$/i;

const isTaken = (cell: string): boolean => FORMULA.test(cell) && !FIGURE.test(cell);

/** A cell as it is written. */
export const guarded = (cell: string): string => (isTaken(cell) ? `'${cell}` : cell);

/** A cell as it was before a guard was put on it, here or by a table program. */
export const unguarded = (cell: string): string =>
  cell.startsWith("'") && FORMULA.test(cell.slice(1)) ? cell.slice(1) : cell;

export const guardedLines = (lines: readonly (readonly unknown[])[]): string[][] =>
  lines.map((cells) => cells.map((cell) => guarded(cell == null ? '' : String(cell)))); // eslint-disable-line eqeqeq -- null and undefined are empty cells; others are figures and text
