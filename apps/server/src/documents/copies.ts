import { cutText } from '@gangway/station';
import type { Connection } from '../database.js';
import { notFound, requireCopyable, taken } from '../problems.js';
import type { Kind } from './kind.js';
import { isSame } from './rows.js';
import { beginningOf, insertAll } from './store.js';

/** A name without what copying added to it. */
export const stemOf = (name: string): string =>
  cutText(name.replace(/ \(copy(?: \d+)?\)$/, ''), 180);

/** A name no other of the list has: “Pier (copy)”, “Pier (copy 2)”. */
export function copyName(name: string, taken: ReadonlySet<string>): string {
  const stem = stemOf(name);
  for (let n = 1; ; n++) {
    const candidate = `${stem} (copy${n === 1 ? '' : ` ${n}`})`;
    if (!taken.has(candidate)) return candidate;
  }
}

export const isCopyOf = (copy: string, name: string): boolean => stemOf(copy) === stemOf(name);

/** A copy under a name of its own; asked again after a lost answer it makes no second one. */
export const duplicate = (
  { transact }: Connection,
  kind: Kind,
  id: string,
  newId: string,
): Promise<void> =>
  transact(async (query) => {
    const [source] = await query<{ document: { name?: unknown }; job_id?: string }>(
      `select * from ${kind.table} where id = $1`,
      [id],
    );
    if (!source) throw notFound(kind.what);
    requireCopyable(source.document);
    const was = String(source.document.name ?? '');
    const rows = await query<{ name: string | null }>(
      `select document->>'name' as name from ${kind.table} where ${kind.beside}`,
      [id],
    );
    const name = copyName(was, new Set(rows.map((row) => row.name ?? '')));
    const document = { ...source.document, name };
    const { job_id } = source;
    const added = await insertAll(query, kind, [
      { id: newId, document, ...(job_id ? { job_id } : {}) },
    ]);
    if (added.size > 0) return;
    const there = await beginningOf(query, kind, newId);
    const made = there?.document as { name?: unknown } | undefined;
    const same = isSame({ ...made, name }, document) && there?.job_id === job_id;
    if (!same || !isCopyOf(String(made?.name), was)) throw taken(kind.what);
  });
