import { createHash, randomUUID } from 'node:crypto';
import type { Request, Response } from 'express';
import { Router } from 'express';
import * as z from 'zod';
import {
  differences,
  JOB_LISTS,
  JobReader,
  jobTooLarge,
  JobWriter,
  LARGEST_JOB_BYTES,
  migrated,
  sameField,
  setSaid,
  type Difference,
  type Job,
  type JobList,
  type Logged,
  type Problem,
} from '@gangway/station';
import type { Connection, Query } from './database.js';
import { copyName } from './documents/copies.js';
import { insertAll } from './documents/store.js';
import { KIT } from './kit.js';
import { storeLines } from './log.js';
import { accept, notFound, Refusal } from './problems.js';
import { idSchema } from './requests.js';
import { RIGS } from './rigs.js';
import { STATIONS } from './stations.js';
import { writePart } from './streaming.js';

/** Whole jobs as files: written out piece by piece, looked at before they are taken in. */

const asked = z.object({
  /** What a new job is to be called by: asked again after a lost answer it is made once. */
  job: idSchema,
  ids: z.enum(['keep', 'new']).default('keep'),
  /** What was looked at before; left out: only look. */
  seen: z.string().max(100).optional(),
});

export function jobFileRoutes(connection: Connection): Router {
  const { query, transact } = connection;
  const router = Router();

  router.get('/:id', async (request, response) => {
    await sendJob(query, response, accept(idSchema, request.params.id));
  });

  router.post('/', async (request, response) => {
    const { job: newId, ids, seen } = accept(asked, request.query);
    const bytes = await bodyOf(request);
    const read = await readJob(bytes);
    const file = ids === 'new' ? withNewIds(read) : read;
    const hash = createHash('sha256').update(bytes).digest('hex');
    response.json(
      await transact(async (within) => {
        const there = ids === 'new' ? await ownOf(within, newId) : null;
        if (there) return { taken: true, job: { id: newId, name: there, isNew: true } };
        const plan = await planFor(within, file, newId);
        const token = tokenOf(plan, hash);
        if (seen === undefined) return { taken: false, token, ...plan.shown };
        if (seen !== token) throw movedOn();
        await takeIn(within, file, plan);
        return { taken: true, job: plan.shown.job };
      }),
    );
  });

  return router;
}

const movedOn = (): Refusal =>
  new Refusal(409, 'The job was changed here since you looked. Nothing was taken in; look again.');

async function ownOf(query: Query, id: string): Promise<string | null> {
  const [row] = await query<{ name: string }>('select name from jobs where id = $1', [id]);
  return row?.name ?? null;
}

// In ------------------------------------------------------------------------------------------

async function bodyOf(request: Request): Promise<Buffer> {
  const tooLarge = (bytes: number): Refusal => new Refusal(413, `The file ${jobTooLarge(bytes)}.`);
  const said = Number(request.headers['content-length'] ?? 0);
  if (said > LARGEST_JOB_BYTES) throw tooLarge(said);
  const chunks: Buffer[] = [];
  let bytes = 0;
  for await (const chunk of request as AsyncIterable<Buffer>) {
    bytes += chunk.length;
    if (bytes > LARGEST_JOB_BYTES) throw tooLarge(bytes);
    chunks.push(chunk);
  }
  return Buffer.concat(chunks);
}

const refused = (problems: readonly Problem[]): Refusal =>
  new Refusal(422, 'This is not a job that can be taken in.', { errors: [...problems] });

/** Entries read between two looks at what else there is to do. */
const AT_ONCE = 200;

/** A job from a file’s bytes; the server stays awake while it reads. */
async function readJob(bytes: Buffer): Promise<Job> {
  let document: unknown;
  try {
    document = JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes));
  } catch {
    throw refused([
      { pointer: '', message: 'is not JSON; a job file is one JSON object in UTF-8' },
    ]);
  }
  if (typeof document !== 'object' || document === null || Array.isArray(document)) {
    throw refused([{ pointer: '', message: 'must be a JSON object with "format": "gangway.job"' }]);
  }
  const reader = new JobReader();
  for (const [name, value] of Object.entries(document)) {
    const list = JOB_LISTS.find((each) => each === name);
    if (!list || !Array.isArray(value)) {
      reader.member(name, value);
      continue;
    }
    reader.begin(list);
    for (const [i, entry] of value.entries()) {
      if (reader.full) break;
      reader.entry(list, entry);
      if (i % AT_ONCE === AT_ONCE - 1) await new Promise((resolve) => setImmediate(resolve));
    }
  }
  const read = reader.finish();
  if (!read.ok) throw refused(read.problems);
  return read.value;
}

/** The same job with ids of its own; the gear it names keeps its. */
function withNewIds(job: Job): Job {
  const ids = new Map(job.stations.map(({ id }) => [id, randomUUID()]));
  return {
    ...job,
    stations: job.stations.map((each) => ({ ...each, id: ids.get(each.id)! })),
    exposures: job.exposures.map((each) => ({
      ...each,
      id: randomUUID(),
      ...(each.station === undefined ? {} : { station: ids.get(each.station)! }),
    })),
  };
}

interface StationRow {
  readonly id: string;
  readonly job_id: string;
  readonly revision: number;
  readonly document: unknown;
  readonly status: string;
  readonly archived: boolean;
}
interface LineRow {
  readonly id: string;
  readonly job_id: string;
  readonly document: Logged;
  readonly deleted: boolean;
}
interface JobRow {
  readonly id: string;
  readonly name: string;
  readonly criterion: unknown;
  readonly notes: string | null;
  readonly films: unknown;
  readonly more: Record<string, unknown> | null;
}

interface Changed {
  readonly name: string;
  readonly differences: readonly Difference[];
}

/** What is shown before a file is taken. */
interface Shown {
  readonly job: { readonly id: string; readonly name: string; readonly isNew: boolean };
  readonly head: readonly Difference[];
  readonly stations: Counts;
  readonly exposures: Counts;
  readonly kit: Counts;
}

interface Counts {
  readonly added: number;
  readonly changed: readonly Changed[];
  readonly changedTotal: number;
  readonly same: number;
  /** Here and not in the file: they stay. */
  readonly onlyHere: number;
}

interface Plan {
  readonly shown: Shown;
  readonly stations: ReadonlyMap<string, StationRow>;
  readonly lines: ReadonlyMap<string, LineRow>;
  readonly head: JobRow | null;
}

/** As many changed things as a person looks through. */
const MOST_SHOWN = 200;

const HEAD = ['name', 'criterion', 'notes', 'films'] as const;

/** Members of a job beside its lists and those with a column of their own. */
function moreOf(job: Job): Record<string, unknown> {
  const known = new Set<string>([...HEAD, ...JOB_LISTS, 'format', 'version']);
  return Object.fromEntries(Object.entries(job).filter(([name]) => !known.has(name)));
}

const headOf = (job: Pick<Job, (typeof HEAD)[number]>, more: object): Record<string, unknown> =>
  Object.fromEntries(
    [...HEAD.map((name) => [name, job[name] ?? null] as const), ...Object.entries(more)].filter(
      ([, value]) => value !== null && !(Array.isArray(value) && value.length === 0),
    ),
  );

async function planFor(query: Query, job: Job, newId: string): Promise<Plan> {
  const stationIds = job.stations.map(({ id }) => id);
  const lineIds = job.exposures.map(({ id }) => id);
  const stations = await query<StationRow>(
    `select id, job_id, revision, document, status, archived_at is not null as archived
     from stations where id = any($1::uuid[])`,
    [stationIds],
  );
  const lines = await query<LineRow>(
    `select id, job_id, document, deleted_at is not null as deleted
     from exposures where id = any($1::uuid[])`,
    [lineIds],
  );
  const owners = [...new Set([...stations, ...lines].map(({ job_id }) => job_id))];
  if (owners.length > 1) await refuseMixed(query, owners);
  const [own] = owners;
  const [head] = await query<JobRow>(
    'select id, name, criterion, notes, films, more from jobs where id = $1 for no key update',
    [own ?? newId],
  );
  if (own === undefined && head) throw movedOn();
  const there = await query<{ stations: number; lines: number }>(
    `select (select count(*) from stations where job_id = $1)::integer as stations,
       (select count(*) from exposures where job_id = $1 and deleted_at is null)::integer as lines`,
    [own ?? newId],
  );
  const byId = new Map(stations.map((row) => [row.id, row]));
  const lineById = new Map(lines.map((row) => [row.id, row]));
  const nameOf = await freeNameFor(query, job, head ?? null);
  return {
    shown: {
      job: { id: own ?? newId, name: nameOf, isNew: !head },
      head: head
        ? differences(headOf(head as never, head.more ?? {}), headOf(job, moreOf(job)))
        : [],
      stations: counted(
        job.stations.map((each) => {
          const row = byId.get(each.id);
          const now = row && standingOf(row.document, row.status, row.archived);
          const next = standingOf(each.document, each.status ?? row?.status ?? 'planned', each.archived ?? false); // prettier-ignore
          return { name: each.document.name, now, next };
        }),
        there[0]!.stations - byId.size,
      ),
      exposures: counted(
        job.exposures.map((each) => {
          const row = lineById.get(each.id);
          const now = row && (row.deleted ? { taken_out: true } : row.document);
          return { name: `${each.at}, ${setSaid(each)}`, now, next: each };
        }),
        there[0]!.lines - lines.filter(({ deleted }) => !deleted).length,
      ),
      kit: await kitCounts(query, job),
    },
    stations: byId,
    lines: lineById,
    head: head ?? null,
  };
}

const standingOf = (document: unknown, status: string, archived: boolean): object => ({
  ...(migrated(document) as object),
  status,
  archived,
});

async function freeNameFor(query: Query, job: Job, head: JobRow | null): Promise<string> {
  if (head) return job.name;
  const rows = await query<{ name: string }>('select name from jobs where starts_with(name, $1)', [
    job.name,
  ]);
  const taken = new Set(rows.map(({ name }) => name));
  return taken.has(job.name) ? copyName(job.name, taken) : job.name;
}

async function refuseMixed(query: Query, owners: readonly string[]): Promise<never> {
  const rows = await query<{ name: string }>(
    'select name from jobs where id = any($1::uuid[]) order by name',
    [owners],
  );
  const names = rows.map(({ name }) => `“${name}”`).join(' and ');
  throw new Refusal(
    409,
    `Its stations and exposures belong to several jobs here: ${names}. Take it in with new ids, as a job of its own.`,
  );
}

function counted(
  all: readonly {
    readonly name: string;
    readonly now?: object | undefined;
    readonly next: object;
  }[],
  onlyHere: number,
): Counts {
  const changed = all.filter(({ now, next }) => now && !sameField(now, next));
  const added = all.filter(({ now }) => !now).length;
  return {
    added,
    changed: changed.slice(0, MOST_SHOWN).map(({ name, now, next }) => ({
      name,
      differences: differences(now, next),
    })),
    changedTotal: changed.length,
    same: all.length - added - changed.length,
    onlyHere,
  };
}

/** Gear that is here stays as it is, however the file has it. */
async function kitCounts(query: Query, { kit = [], rigs = [] }: Job): Promise<Counts> {
  const ids = [...kit, ...rigs].map(({ id }) => id);
  const rows = await query<{ id: string; document: object }>(
    `select id, document from kit_items where id = any($1::uuid[])
     union all select id, document from rigs where id = any($1::uuid[])`,
    [ids],
  );
  const byId = new Map(rows.map(({ id, document }) => [id, document]));
  return counted(
    [...kit, ...rigs].map(({ id, document }) => ({
      name: document.name,
      now: byId.get(id),
      next: document,
    })),
    0,
  );
}

/** Says whether all is as it was when it was looked at. */
function tokenOf({ shown, stations, lines }: Plan, file: string): string {
  const state = JSON.stringify([
    file,
    shown,
    [...stations.values()].map(({ id, revision, status, archived }) => [id, revision, status, archived]), // prettier-ignore
    [...lines.values()].map(({ id, document, deleted }) => [id, document, deleted]),
  ]);
  return createHash('sha256').update(state).digest('hex');
}

async function takeIn(query: Query, job: Job, plan: Plan): Promise<void> {
  const { id, name } = plan.shown.job;
  await query(
    `insert into jobs (id, name, criterion, notes, films, more)
     values ($1, $2, $3::jsonb, $4, $5::jsonb, $6::jsonb)
     on conflict (id) do update set name = excluded.name, criterion = excluded.criterion,
       notes = excluded.notes, films = excluded.films, more = excluded.more, updated_at = now()`,
    [
      id,
      name,
      job.criterion === undefined ? null : JSON.stringify(job.criterion),
      job.notes ?? null,
      job.films === undefined ? null : JSON.stringify(job.films),
      Object.keys(moreOf(job)).length === 0 ? null : JSON.stringify(moreOf(job)),
    ],
  );
  const start = Date.now();
  const madeIn = <T>(each: T, i: number) => ({ ...each, created_at: new Date(start + i) });
  await insertAll(query, KIT, (job.kit ?? []).map(madeIn));
  await insertAll(query, RIGS, (job.rigs ?? []).map(madeIn));
  await takeStations(query, job, plan);
  await takeLines(query, job, plan);
  await query(`select pg_notify('gangway_changes', $1)`, [
    JSON.stringify({ table: 'logs', id, revision: null }),
  ]);
}

/** Documents of one statement: what a database takes without trouble. */
const A_PART = 500;

const parts = <T>(all: readonly T[]): T[][] =>
  Array.from({ length: Math.ceil(all.length / A_PART) }, (_, i) =>
    all.slice(i * A_PART, (i + 1) * A_PART),
  );

async function takeStations(query: Query, job: Job, { shown, stations }: Plan): Promise<void> {
  const start = Date.now();
  const fresh = job.stations.flatMap((each, i) =>
    stations.has(each.id)
      ? []
      : [
          {
            id: each.id,
            document: each.document,
            created_at: new Date(start + i),
            job_id: shown.job.id,
            ...(each.status ? { status: each.status } : {}),
          },
        ],
  );
  for (const part of parts(fresh)) await insertAll(query, STATIONS, part);
  const changed = job.stations.filter(({ id, document }) => {
    const row = stations.get(id);
    return row && !sameField(migrated(row.document), document);
  });
  for (const part of parts(changed)) {
    // What was there before is kept for good: a person chose to go over it.
    await query(
      `with given as (
         select * from jsonb_to_recordset($1::jsonb) as given (id uuid, document jsonb)
       ), stored as (
         update stations set document = given.document, revision = revision + 1, updated_at = now()
         from given where stations.id = given.id
         returning stations.id, stations.revision, stations.document, stations.updated_at
       ), held as (
         update station_revisions as earlier set held = true from stored
         where earlier.station_id = stored.id and earlier.revision = stored.revision - 1
       )
       insert into station_revisions (station_id, revision, document, saved_at)
       select id, revision, document, updated_at from stored`,
      [JSON.stringify(part.map(({ id, document }) => ({ id, document })))],
    );
  }
  for (const part of parts(job.stations)) {
    await query(
      `update stations set status = coalesce(given.status, stations.status),
         archived_at = case when given.archived then coalesce(archived_at, now()) end
       from jsonb_to_recordset($1::jsonb) as given (id uuid, status text, archived boolean)
       where stations.id = given.id
         and (stations.status <> coalesce(given.status, stations.status)
           or (archived_at is not null) <> coalesce(given.archived, false))`,
      [JSON.stringify(part.map(({ id, status, archived }) => ({ id, status, archived })))],
    );
  }
}

async function takeLines(query: Query, job: Job, { shown, lines }: Plan): Promise<void> {
  const changed = job.exposures.filter((each) => {
    const row = lines.get(each.id);
    return !row || row.deleted || !sameField(row.document, each);
  });
  for (const part of parts(changed)) {
    await storeLines(
      query,
      shown.job.id,
      part.map((document) => ({ id: document.id, document, position: null, deleted: false })),
    );
  }
}

// Out -----------------------------------------------------------------------------------------

const START = '00000000-0000-0000-0000-000000000000';

/** A name a file may have: what a job is called, without what a file system trips over. */
const fileNameOf = (name: string): string =>
  `${
    name
      .replace(/[^\p{L}\p{N} ._-]+/gu, '-')
      .trim()
      .slice(0, 80) || 'job'
  }.job.json`;

async function sendJob(query: Query, response: Response, id: string): Promise<void> {
  const [row] = await query<JobRow>(
    'select id, name, criterion, notes, films, more from jobs where id = $1',
    [id],
  );
  if (!row) throw notFound('job');
  const { name, criterion, notes, films, more } = row;
  const head: Record<string, unknown> = {
    ...more,
    format: 'gangway.job',
    version: 1,
    name,
    criterion: criterion ?? undefined,
    notes: notes ?? undefined,
    films: Array.isArray(films) && films.length > 0 ? films : undefined,
  };
  response.setHeader('Content-Type', 'application/json; charset=utf-8');
  response.setHeader(
    'Content-Disposition',
    `attachment; filename*=UTF-8''${encodeURIComponent(fileNameOf(name))}`,
  );
  const writer = new JobWriter();
  const send = (text: string): Promise<void> => writePart(response, text);
  await send(writer.head(head));
  for (const list of JOB_LISTS) {
    let opened = list === 'stations' || list === 'exposures';
    if (opened) await send(writer.open(list));
    for await (const entries of pagesOf(query, id, list)) {
      if (!opened && entries.length > 0) await send(writer.open(list));
      opened ||= entries.length > 0;
      await send(entries.map((each) => writer.entry(list, each)).join(''));
      if (response.closed) return;
    }
    if (opened) await send(writer.close());
  }
  await send(writer.end(head));
  response.end();
}

/** Entries of one list, in their order, a part at a time. */
async function* pagesOf(query: Query, job: string, list: JobList): AsyncGenerator<object[]> {
  if (list === 'rigs') return;
  if (list === 'kit') {
    yield await query<{ id: string; document: object }>(
      `select id, document from kit_items
       where id::text in (
         select jsonb_array_elements_text(kit_ids) from stations where job_id = $1
       ) order by id`,
      [job],
    );
    return;
  }
  const table = list === 'stations' ? 'stations' : 'exposures';
  const columns =
    list === 'stations' ? 'document, status, archived_at is not null as archived' : 'document';
  const which = list === 'stations' ? '' : 'and deleted_at is null';
  const size = list === 'stations' ? 50 : A_PART;
  type Found = {
    id: string;
    position: number;
    document: object;
    status?: string;
    archived?: boolean;
  };
  for (let from: readonly [number, string] = [-Infinity, START]; ;) {
    const rows = await query<Found>(
      `select id, position, ${columns} from ${table}
       where job_id = $1 ${which} and (position, id) > ($2::float, $3::uuid)
       order by position, id limit ${size}`,
      [job, ...from],
    );
    yield rows.map(({ id, document, status, archived }) =>
      list === 'exposures'
        ? document
        : { id, ...(archived ? { archived } : {}), status, document: migrated(document) as object },
    );
    if (rows.length < size) return;
    const last = rows.at(-1)!;
    from = [last.position, last.id];
  }
}
