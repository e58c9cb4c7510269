import type { Connection } from './database.js';
import type { Kind } from './documents/kind.js';

/**
 * Autosaves grow with every touch of a scale. What is older than a day keeps the last save of each
 * burst of edits, the first save of all, and every one that a person named or chose to go on from;
 * so a station that is edited for a year stays small.
 */

/** Edits further apart than this are two bursts. */
const BURST = '10 minutes';
const KEPT_WHOLE = '1 day';

const HOUR_MS = 3_600_000;
/** Any number of ours: of several processes one thins at a time. */
const THINNING_LOCK = 4170_002;

const statement = ({ revisions, owner }: Kind): string => `
  with touched as (
    select distinct ${owner} as owner from ${revisions}
    where saved_at < now() - interval '${KEPT_WHOLE}' and saved_at >= now() - $1::interval
  ), told as (
    select ${owner} as owner, revision, saved_at, name, held,
      lead(saved_at) over (partition by ${owner} order by revision) as next_at
    from ${revisions} join touched on touched.owner = ${owner}
  )
  delete from ${revisions} as save using told
  where save.${owner} = told.owner and save.revision = told.revision
    and told.saved_at < now() - interval '${KEPT_WHOLE}'
    and told.next_at - told.saved_at < interval '${BURST}'
    and told.revision > 1 and told.name is null and not told.held
  returning 1`;

/**
 * Thins the saves of kinds that save by themselves.
 * @param since how far back saves are looked at, as PostgreSQL writes an interval
 * @returns how many went; null when another process is at it
 */
export const thin = (
  { transact }: Pick<Connection, 'transact'>,
  kinds: readonly Kind[],
  since: string,
): Promise<number | null> =>
  transact(async (query) => {
    const [lock] = await query<{ got: boolean }>('select pg_try_advisory_xact_lock($1) as got', [
      THINNING_LOCK,
    ]);
    if (!lock?.got) return null;
    let gone = 0;
    for (const kind of kinds) gone += (await query(statement(kind), [since])).length;
    return gone;
  });

/** Thins at once all there is, then every hour what has come of age. @returns how to end it */
export function keepThin(
  connection: Pick<Connection, 'transact'>,
  kinds: readonly Kind[],
  onFault: (error: unknown) => void,
): () => void {
  const run = (since: string): void => void thin(connection, kinds, since).catch(onFault);
  run('1000 years');
  const timer = setInterval(() => run('2 days'), HOUR_MS);
  timer.unref();
  return () => clearInterval(timer);
}
