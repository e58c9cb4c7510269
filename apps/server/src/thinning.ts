import type { Connection, Query } from './database.js';
import type { Kind } from './documents/kind.js';

/**
 * Saves are the user’s: nothing is taken away unless a person turned it on, having been told what would
 * go. Then the newest saves of each document stay whole; of older ones stays the last of each spell of
 * work, the first of all, and every one that a person named or chose to go on from. Which are older is
 * told by their order alone: a clock that jumps makes nothing old.
 */
export interface History {
  readonly thin: boolean;
  /** So many of the newest saves of each document are left alone. */
  readonly whole: number;
}

/** Saves further apart than this are of two spells of work. */
const SPELL = '10 minutes';

const HOUR_MS = 3_600_000;
/** Documents looked at in one statement. */
const A_PIECE = 20;
/** Any number of ours: of several processes one thins at a time. */
const THINNING_LOCK = 4170_002;

export async function historyOf(query: Query): Promise<History> {
  const [row] = await query<History>(
    'select thins_saves as thin, saves_kept_whole as whole from settings where id = 1',
    [],
  );
  return row ?? { thin: false, whole: 200 };
}

export const setHistory = async (query: Query, { thin, whole }: History): Promise<void> => {
  await query(
    `insert into settings (id, thins_saves, saves_kept_whole) values (1, $1, $2)
     on conflict (id) do update set thins_saves = excluded.thins_saves,
       saves_kept_whole = excluded.saves_kept_whole`,
    [thin, whole],
  );
};

/** Saves with what is asked of them; `$1`: how many of the newest stay whole. A step back in time ends a spell. */
const told = ({ revisions, owner }: Kind, which: string): string => `
  select ${owner} as owner, revision,
    row_number() over newest > $1
      and revision > 1 and name is null and not held
      and next_at >= saved_at and next_at - saved_at < interval '${SPELL}' as goes
  from (
    select ${owner}, revision, name, held, saved_at,
      lead(saved_at) over (partition by ${owner} order by revision) as next_at
    from ${revisions} ${which}
  ) as saves
  window newest as (partition by ${owner} order by revision desc)`;

export interface WouldGo {
  readonly saves: number;
  readonly of: number;
  readonly documents: number;
}

/** What thinning would take away, were it turned on. */
export async function wouldGo(
  query: Query,
  kinds: readonly Kind[],
  whole: number,
): Promise<WouldGo> {
  const all = { saves: 0, of: 0, documents: 0 };
  for (const kind of kinds) {
    const [row] = await query<WouldGo>(
      `select (count(*) filter (where goes))::integer as saves, count(*)::integer as of,
         (count(distinct owner) filter (where goes))::integer as documents
       from (${told(kind, '')}) as told`,
      [whole],
    );
    all.saves += row!.saves;
    all.of += row!.of;
    all.documents += row!.documents;
  }
  return all;
}

const START = '00000000-0000-0000-0000-000000000000';

/**
 * Thins the saves of kinds, a few documents at a time, each piece by itself; ends where a person turns it
 * off meanwhile.
 * @returns how many went; null when another process is at it
 */
export async function thin(
  { transact }: Pick<Connection, 'transact'>,
  kinds: readonly Kind[],
): Promise<number | null> {
  let gone = 0;
  for (const kind of kinds) {
    const { revisions, owner } = kind;
    for (let after: string | undefined = START; after !== undefined;) {
      const from: string = after;
      const piece = await transact(async (query) => {
        const [lock] = await query<{ got: boolean }>(
          'select pg_try_advisory_xact_lock($1) as got',
          [THINNING_LOCK],
        );
        if (!lock?.got) return null;
        const { thin: on, whole } = await historyOf(query);
        if (!on) return { owners: [], gone: 0 };
        const owners = await query<{ owner: string }>(
          `select ${owner} as owner from ${revisions} where ${owner} > $1
           group by ${owner} having count(*) > $2 order by ${owner} limit ${A_PIECE}`,
          [from, whole],
        );
        const went = await query(
          `delete from ${revisions} as save
           using (${told(kind, `where ${owner} = any($2::uuid[])`)}) as told
           where save.${owner} = told.owner and save.revision = told.revision and told.goes
           returning 1`,
          [whole, owners.map((each) => each.owner)],
        );
        return { owners, gone: went.length };
      });
      if (piece === null) return null;
      gone += piece.gone;
      after = piece.owners.at(-1)?.owner;
    }
  }
  return gone;
}

/** Thins every hour what has grown old, where that is turned on. @returns how to end it */
export function keepThin(
  connection: Pick<Connection, 'transact'>,
  kinds: readonly Kind[],
  onFault: (error: unknown) => void,
): () => void {
  const timer = setInterval(() => void thin(connection, kinds).catch(onFault), HOUR_MS);
  timer.unref();
  return () => clearInterval(timer);
}
