import type { Logged } from '@gangway/station';
import type { Encoding } from '../kit/decode.js';
import { offsetOf } from './now.js';
import { readLogTable, type TableResult } from './read-table.js';
import { columnsFor, stationNames } from './table-edits.js';

/** Reads a table away from the page. */
export interface TableWorkerAsked {
  readonly file: File;
  readonly encoding: Encoding | null;
  readonly mapping: readonly (string | null)[] | null;
  readonly lines: readonly Logged[];
  /** Names of the stations by id. */
  readonly stations: readonly (readonly [id: string, name: string])[];
}

self.addEventListener('message', ({ data }: MessageEvent<TableWorkerAsked>) => {
  void (async (): Promise<void> => {
    const { file, encoding, mapping, lines, stations } = data;
    const columns = columnsFor(stationNames(new Map(stations.map(([id, name]) => [id, { name }]))));
    const result: TableResult = readLogTable(await file.arrayBuffer(), {
      encoding,
      mapping,
      columns,
      there: new Map(lines.map((line) => [line.id, line])),
      offset: offsetOf,
      newId: () => crypto.randomUUID(),
    });
    self.postMessage(result);
  })().catch(() =>
    self.postMessage({ refused: 'The file could not be read.' } satisfies TableResult),
  );
});
