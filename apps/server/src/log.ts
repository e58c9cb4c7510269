import { Router, type Response } from 'express';
import * as z from 'zod';
import {
  FAR_OFF_S,
  instantMs,
  loadedListSchema,
  logChangesSchema,
  parseLogged,
  sameField,
  withFields,
  type FieldChange,
  type LogChange,
  type Logged,
} from '@gangway/station';
import type { Connection, Query } from './database.js';
import { accept, notFound } from './problems.js';
import { idSchema, whole } from './requests.js';
import { writePart } from './streaming.js';

/**
 * A job’s log: given out as lines of JSON, changed in short lists of changes that are carried out in
 * their order. A change that was carried out before is carried out once: whoever lost the answer
 * sends it again.
 */

interface Row {
  readonly id: string;
  readonly job_id: string;
  readonly document: Logged;
  readonly position: number;
  readonly deleted: boolean;
}

/** What became of one change. */
interface Outcome {
  readonly id: string;
  readonly outcome: 'done' | 'clash' | 'refused';
  readonly message?: string;
  readonly fields?: readonly string[];
  /** As it is now, where that is not what the change made of it; null: it is gone. */
  readonly document?: Logged | null;
}

const since = z.object({ since: whole(0, Number.MAX_SAFE_INTEGER, 0) });
const asked = z.object({
  changes: logChangesSchema,
  /** The device’s own clock when it sent them, ms since 1970. */
  now: z.number().optional(),
});

/** Lines fetched at a time: enough to be quick, few enough to keep no more than a part in memory. */
const PAGE = 2000;

export function logRoutes(connection: Connection): Router {
  const { query, transact } = connection;
  const router = Router({ mergeParams: true });
  const jobOf = (params: object): string => accept(idSchema, (params as { job?: string }).job);

  router.get('/', async (request, response) => {
    const job = jobOf(request.params);
    const { since: after } = accept(since, request.query);
    await sendLog(query, response, job, after);
  });

  router.post('/', async (request, response) => {
    const job = jobOf(request.params);
    const { changes, now } = accept(asked, request.body);
    const offS = now === undefined ? 0 : Math.round((Date.now() - now) / 1000);
    const all = changes as LogChange[];
    response.json(await transact((within) => carryOut(within, job, all, offS)));
  });

  return router;
}

/** What was logged by a clock that is far off is marked so; a person decides what it means. */
const withClock = (line: Logged, offS: number): Logged =>
  Math.abs(offS) < FAR_OFF_S ? line : { clock_off_s: offS, ...line };

async function headOf(query: Query, job: string) {
  const [row] = await query<{ films: unknown; latest: string; total: number }>(
    `select films,
       (select coalesce(max(seq), 0) from exposures where job_id = jobs.id)::text as latest,
       (select count(*) from exposures where job_id = jobs.id and deleted_at is null)::integer as total
     from jobs where id = $1`,
    [job],
  );
  if (!row) throw notFound('job');
  return { latest: Number(row.latest), total: row.total, films: row.films ?? [] };
}

/** First how the log stands, then its lines; of those since a change, the ones that are gone too. */
async function sendLog(query: Query, response: Response, job: string, after: number) {
  // Told before the lines: what is changed meanwhile comes with the next look.
  const head = await headOf(query, job);
  response.setHeader('Content-Type', 'application/x-ndjson; charset=utf-8');
  await writePart(response, `${JSON.stringify(head)}\n`);
  const living = after === 0 ? 'and deleted_at is null' : '';
  for (let from: readonly [number, string] = [-1, '00000000-0000-0000-0000-000000000000']; ;) {
    const rows = await query<{ json: string; position: number; id: string }>(
      `select id, position,
         json_build_object('position', position, 'gone', deleted_at is not null, 'document', document)::text as json
       from exposures
       where job_id = $1 and seq > $2 ${living} and (position, id) > ($3::float, $4::uuid)
       order by position, id limit ${PAGE}`,
      [job, after, ...from],
    );
    if (rows.length > 0) await writePart(response, `${rows.map(({ json }) => json).join('\n')}\n`);
    if (rows.length < PAGE || response.closed) break;
    const last = rows.at(-1)!;
    from = [last.position, last.id];
  }
  response.end();
}

/** Lets other pages know, once the work is done. */
const tell = (query: Query, job: string, latest: number): Promise<unknown> =>
  query(`select pg_notify('gangway_changes', $1)`, [
    JSON.stringify({ table: 'logs', id: job, revision: latest }),
  ]);

async function carryOut(query: Query, job: string, changes: readonly LogChange[], offS: number) {
  // One at a time in a job, so that lines get their places in the order they come.
  const [own] = await query<{ films: unknown }>(
    'select films from jobs where id = $1 for no key update',
    [job],
  );
  if (!own) throw notFound('job');
  const rows = await query<Row>(
    `select id, job_id, document, position, deleted_at is not null as deleted
     from exposures where id = any($1::uuid[])`,
    [changes.map(({ id }) => id)],
  );
  const stations = await query<{ id: string }>('select id from stations where job_id = $1', [job]);
  const work = new Work(job, rows, new Set(stations.map(({ id }) => id)), own.films ?? [], offS);
  const results = changes.map((change) => work.take(change));
  const { latest: before } = await headOf(query, job);
  const stored = await store(query, job, work);
  const placed = await placeByTime(query, job, [...work.added]);
  const latest = placed ? (await headOf(query, job)).latest : stored;
  if (work.touched.size > 0 || work.filmsChanged) await tell(query, job, latest);
  // Where lines came to stand elsewhere than last, the page looks anew.
  return { before: placed ? -1 : before, latest, results };
}

/** The lines that changes are about, as they come to stand. */
class Work {
  readonly lines: Map<string, { document: Logged; position: number | null; deleted: boolean }>;
  readonly touched = new Set<string>();
  /** Lines that were not there before. */
  readonly added = new Set<string>();
  filmsChanged = false;
  private readonly elsewhere: ReadonlySet<string>;

  constructor(
    private readonly job: string,
    rows: readonly Row[],
    private readonly stations: ReadonlySet<string>,
    public films: unknown,
    /** How far off the clock of the device is, s. */
    private readonly offS: number,
  ) {
    const own = rows.filter(({ job_id }) => job_id === job);
    this.lines = new Map(own.map(({ id, ...line }) => [id, line]));
    this.elsewhere = new Set(rows.filter(({ job_id }) => job_id !== job).map(({ id }) => id));
  }

  take(change: LogChange): Outcome {
    const { id } = change;
    if ('films' in change) return this.load(id, change.films);
    if (this.elsewhere.has(id)) {
      return { id, outcome: 'refused', message: 'This line is in the log of another job.' };
    }
    if ('add' in change) return this.add(id, change.add);
    const line = this.lines.get(id);
    if (!line) return { id, outcome: 'refused', message: 'There is no such line in the log.' };
    if ('set' in change) {
      const applied = withFields(line.document, change.set);
      if (applied.kind === 'refused') return { id, outcome: 'refused', message: applied.message, document: now(line) }; // prettier-ignore
      if (applied.kind === 'clash') return { id, outcome: 'clash', fields: applied.fields, document: now(line) }; // prettier-ignore
      const document = this.known(applied.line);
      if (!sameField(document, line.document)) this.put(id, { ...line, document });
      return { id, outcome: 'done' };
    }
    const deleted = 'remove' in change;
    if (line.deleted !== deleted) this.put(id, { ...line, deleted });
    return { id, outcome: 'done' };
  }

  private load(id: string, { was, to }: FieldChange): Outcome {
    const clash = id !== this.job || (!sameField(this.films, was ?? []) && !sameField(this.films, to ?? [])); // prettier-ignore
    if (clash) return { id, outcome: 'clash', fields: ['films'] };
    const read = loadedListSchema.safeParse(to ?? []);
    if (!read.success) return { id, outcome: 'refused', message: `films ${read.error.issues[0]!.message}.` }; // prettier-ignore
    if (!sameField(this.films, to ?? [])) {
      this.films = to ?? [];
      this.filmsChanged = true;
    }
    return { id, outcome: 'done' };
  }

  private add(id: string, given: Logged): Outcome {
    const read = parseLogged(withClock(given, this.offS));
    if (!read.ok) {
      const [{ pointer, message }] = read.problems as [{ pointer: string; message: string }];
      return { id, outcome: 'refused', message: `${pointer.slice(1)} ${message}.` };
    }
    if (read.value.id !== id) return { id, outcome: 'refused', message: 'id must be the line’s own.' }; // prettier-ignore
    const document = this.known(read.value);
    // Sent twice is one; what was done to it since stays.
    if (!this.lines.has(id)) {
      this.put(id, { document, position: null, deleted: false });
      this.added.add(id);
    }
    return sameField(document, given) ? { id, outcome: 'done' } : { id, outcome: 'done', document };
  }

  /** A line whose station was deleted for good meanwhile is kept, without it. */
  private known(line: Logged): Logged {
    if (line.station === undefined || this.stations.has(line.station)) return line;
    const { station: _, ...rest } = line;
    return rest;
  }

  private put(id: string, line: { document: Logged; position: number | null; deleted: boolean }) {
    this.lines.set(id, line);
    this.touched.add(id);
  }
}

const now = ({ document, deleted }: { document: Logged; deleted: boolean }): Logged | null =>
  deleted ? null : document;

/** @returns the count of the job’s latest change */
async function store(query: Query, job: string, work: Work): Promise<number> {
  if (work.filmsChanged) {
    await query('update jobs set films = $2::jsonb where id = $1', [
      job,
      JSON.stringify(work.films),
    ]);
  }
  const rows = [...work.touched].map((id) => ({ id, ...work.lines.get(id)! }));
  if (rows.length > 0) await storeLines(query, job, rows);
  return (await headOf(query, job)).latest;
}

interface StoredLine {
  readonly id: string;
  readonly document: Logged;
  /** Null: after all that are there. */
  readonly position: number | null;
  readonly deleted: boolean;
}

/** Writes lines, new ones after all that are there, in the order given. The job is locked. */
export async function storeLines(
  query: Query,
  job: string,
  rows: readonly StoredLine[],
): Promise<void> {
  await query(
    `with given as (
       select *, row_number() over () as nth
       from jsonb_to_recordset($2::jsonb)
         as given (id uuid, document jsonb, position float, deleted boolean)
     ), there as (
       select coalesce(max(position), 0) as last, coalesce(max(seq), 0) as latest
       from exposures where job_id = $1
     )
     insert into exposures (id, job_id, document, position, seq, deleted_at)
     select given.id, $1, given.document, coalesce(given.position, there.last + given.nth),
       there.latest + given.nth, case when given.deleted then now() end
     from given, there
     on conflict (id) do update set
       document = excluded.document, seq = excluded.seq,
       deleted_at = case when excluded.deleted_at is null then null
         else coalesce(exposures.deleted_at, excluded.deleted_at) end
     where exposures.job_id = excluded.job_id`,
    [job, JSON.stringify(rows)],
  );
}

interface Placed {
  readonly id: string;
  readonly position: number;
  readonly ms: number;
}

/** Less room than this between two lines, and all of the job are spaced anew. */
const LEAST_ROOM = 1e-6;

/**
 * Lines stand by time, whichever device they come from: one that was made before others that are there
 * goes before them. Most come as the last, and cost one look.
 * @returns whether any was placed elsewhere than last
 */
async function placeByTime(query: Query, job: string, ids: readonly string[]): Promise<boolean> {
  if (ids.length === 0) return false;
  const timed = (where: string): Promise<Placed[]> =>
    query<{ id: string; position: number; at: string; off: number | null }>(
      `select id, position, document->>'at' as at, (document->>'clock_off_s')::float as off
       from exposures where job_id = $1 and ${where}`,
      [job, ids],
    ).then((rows) =>
      rows.map(({ id, position, at, off }) => ({
        id,
        position,
        ms: instantMs({ at, clock_off_s: off ?? undefined }),
      })),
    );
  const fresh = await timed('id = any($2::uuid[]) order by position');
  const [last] = await timed('id <> all($2::uuid[]) order by position desc limit 1');
  if (!last || fresh.every(({ ms }) => ms >= last.ms)) return false;
  const there = await timed('id <> all($2::uuid[]) order by position');
  /** For each place after a line that is there, counted from 0, the new ones that come to it. */
  const comers = new Map<number, Placed[]>();
  for (const each of fresh.toSorted((a, b) => a.ms - b.ms)) {
    const at = there.findLastIndex(({ ms }) => ms <= each.ms);
    comers.set(at, [...(comers.get(at) ?? []), each]);
  }
  const moved: { id: string; position: number }[] = [];
  let crowded = false;
  for (const [at, lines] of comers) {
    const low = there[at]?.position ?? (there[0]?.position ?? 1) - 1;
    const high = there[at + 1]?.position ?? low + lines.length + 1;
    const step = (high - low) / (lines.length + 1);
    crowded ||= step < LEAST_ROOM;
    lines.forEach(({ id }, i) => moved.push({ id, position: low + step * (i + 1) }));
  }
  if (crowded) {
    moved.length = 0;
    for (let at = -1; at < there.length; at++) {
      for (const { id } of [...(at < 0 ? [] : [there[at]!]), ...(comers.get(at) ?? [])]) {
        moved.push({ id, position: moved.length + 1 });
      }
    }
  }
  await query(
    `with given as (
       select *, row_number() over () as nth
       from jsonb_to_recordset($2::jsonb) as given (id uuid, position float)
     ), there as (select coalesce(max(seq), 0) as latest from exposures where job_id = $1)
     update exposures set position = given.position, seq = there.latest + given.nth
     from given, there where exposures.id = given.id`,
    [job, JSON.stringify(moved)],
  );
  return true;
}

/** Lines of a station that is deleted for good stay, without it. */
export async function forgetStation(query: Query, id: string): Promise<void> {
  await query(
    `update exposures set document = document - 'station',
       seq = (select max(seq) + 1 from exposures as there where there.job_id = exposures.job_id)
     where document->>'station' = $1
       and job_id = (select job_id from stations where id = $1::uuid)`,
    [id],
  );
}
