import { guardedLines, LOG_COLUMNS, type Logged, type LogColumn } from '@gangway/station';
import Papa from 'papaparse';
import type { StationNames } from './table-edits.js';
import { columnsFor } from './table-edits.js';

/** The log as files for other programs, made in parts so that a long one is never one text. */

const A_PART = 1000;

const parts = <T>(all: readonly T[]): T[][] =>
  Array.from({ length: Math.ceil(all.length / A_PART) }, (_, i) => all.slice(i * A_PART, (i + 1) * A_PART)); // prettier-ignore

/** RFC 4180; heads are the names of the job file. */
export function logCsv(lines: readonly Logged[], names: StationNames): Blob {
  const columns = [...columnsFor(names), { path: 'id', plain: ({ id }: Logged) => id }];
  const options = { newline: '\r\n' };
  const head = Papa.unparse([columns.map(({ path }) => path)], options);
  const body = parts(lines).map(
    (some) =>
      `\r\n${Papa.unparse(guardedLines(some.map((line) => columns.map(({ plain }) => plain(line)))), options)}`,
  );
  return new Blob([head, ...body, '\r\n'], { type: 'text/csv' });
}

/** Lines as a spreadsheet takes them from the clipboard. */
export const blockText = (lines: readonly Logged[], columns: readonly LogColumn[]): string =>
  Papa.unparse(
    guardedLines(
      lines.map((line) =>
        columns.map(({ path, plain }) => (path === 'at' ? line.at : plain(line))),
      ),
    ),
    { delimiter: '\t', newline: '\n' },
  );

/** Every line as the job file has it. */
export const logJson = (lines: readonly Logged[]): Blob =>
  new Blob(
    [
      '[\n',
      ...parts(lines).map(
        (some, i) => `${i === 0 ? '' : ',\n'}${some.map((line) => JSON.stringify(line)).join(',\n')}`, // prettier-ignore
      ),
      '\n]\n',
    ],
    { type: 'application/json' },
  );

export const KNOWN_PATHS: readonly string[] = LOG_COLUMNS.map(({ path }) => path);
