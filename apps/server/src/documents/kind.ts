import type { Result } from '@gangway/station';
import type { Query } from '../database.js';

/**
 * One kind of document that is kept: a table of the present ones and a table of every save.
 * All that differs between stations, rigs and kit items stands here.
 */
export interface Kind<T extends object = object> {
  /** As refusals name it. */
  readonly what: string;
  readonly table: 'stations' | 'rigs' | 'kit_items';
  readonly revisions: 'station_revisions' | 'rig_revisions' | 'kit_revisions';
  /** The column of `revisions` that names whose they are. */
  readonly owner: 'station_id' | 'rig_id' | 'item_id';
  readonly parse: (document: unknown) => Result<T>;
  /** Columns of its own, and what a new row has in them; `given` is what came in. */
  readonly own: Readonly<Record<string, string>>;
  /** What is shown besides, from its columns. */
  readonly shown: Readonly<Record<string, string>>;
  /** SQL: whether a stored document is of an older form and has to be migrated when it is read. */
  readonly isOld: string;
  /** A document of an older form in the present one; as it is when that cannot be told. */
  readonly migrated: (document: unknown) => unknown;
  /** What lists show of a document, where that is more than it holds: kept with the save. */
  readonly digest?: (document: unknown) => object | null;
  /** SQL: the rows among which a copy of the row `$1` needs a name of its own. */
  readonly beside: string;
  /** What else names it, and has to be told before it is gone for good. */
  readonly beforeRemoval?: (query: Query, id: string) => Promise<void>;
}

/** A new document, with what its kind's own columns take. */
export interface Given {
  readonly id: string;
  readonly document: object;
  /** When it is to have been made; now, when left out. */
  readonly created_at?: Date;
  readonly import_id?: string | null;
  readonly job_id?: string;
  readonly status?: string;
}

export const kindOf = <T extends object>(kind: Kind<T>): Kind<T> => kind;
