import { createHash } from 'node:crypto';
import {
  differences,
  JOB_LISTS,
  LOG_COLUMNS,
  migrated,
  sameField,
  setSaid,
  type Difference,
  type Job,
  type Logged,
} from '@gangway/station';
import type { Query } from '../database.js';
import { breaths } from '../breath.js';
import { copyName } from '../documents/copies.js';
import { Refusal } from '../problems.js';

/** What a job’s file would change here, looked at before it is taken in. */

export const movedOn = (): Refusal =>
  new Refusal(409, 'The job was changed here since you looked. Nothing was taken in; look again.');

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
export interface JobRow {
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

export interface Plan {
  readonly shown: Shown;
  readonly stations: ReadonlyMap<string, StationRow>;
  readonly lines: ReadonlyMap<string, LineRow>;
  readonly head: JobRow | null;
}

/** As many changed things as a person looks through. */
const MOST_SHOWN = 200;

const HEAD = ['name', 'criterion', 'notes', 'films'] as const;

/** Members of a job beside its lists and those with a column of their own. */
export function moreOf(job: Job): Record<string, unknown> {
  const known = new Set<string>([...HEAD, ...JOB_LISTS, 'format', 'version']);
  return Object.fromEntries(Object.entries(job).filter(([name]) => !known.has(name)));
}

const headOf = (job: Pick<Job, (typeof HEAD)[number]>, more: object): Record<string, unknown> =>
  Object.fromEntries(
    [...HEAD.map((name) => [name, job[name] ?? null] as const), ...Object.entries(more)].filter(
      ([, value]) => value !== null && !(Array.isArray(value) && value.length === 0),
    ),
  );

export async function planFor(query: Query, job: Job, newId: string): Promise<Plan> {
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
      stations: await counted(
        lazily(job.stations, (each) => {
          const row = byId.get(each.id);
          const now = row && standingOf(row.document, row.status, row.archived);
          const next = standingOf(each.document, each.status ?? row?.status ?? 'planned', each.archived ?? false); // prettier-ignore
          return { name: each.document.name, now, next };
        }),
        there[0]!.stations - byId.size,
      ),
      exposures: await counted(
        lazily(job.exposures, (each) => {
          const row = lineById.get(each.id);
          const now = row && (row.deleted ? { taken_out: true } : row.document);
          const name = `${each.at.slice(0, 19).replace('T', ' ')}, ${setSaid(each)}`;
          return { name, now, next: each };
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

/** What the log’s table calls the fields of a line. */
const LABELS: ReadonlyMap<string, string> = new Map(
  LOG_COLUMNS.map(({ path, label }) => [path.replaceAll(/[._]/g, ' '), label]),
);

/** A thing of the file beside what is here. */
interface Compared {
  readonly name: string;
  readonly now?: object | undefined;
  readonly next: object;
}

/** Each made when it is looked at: a file has thousands. */
function* lazily<T>(all: readonly T[], made: (each: T) => Compared): Generator<Compared> {
  for (const each of all) yield made(each);
}

async function counted(all: Iterable<Compared>, onlyHere: number): Promise<Counts> {
  const breathe = breaths();
  const changed: Compared[] = [];
  let [count, added] = [0, 0];
  for (const each of all) {
    count++;
    if (!each.now) added++;
    else if (!sameField(each.now, each.next)) changed.push(each);
    await breathe();
  }
  return {
    added,
    changed: changed.slice(0, MOST_SHOWN).map(({ name, now, next }) => ({
      name,
      differences: differences(now, next).map((each) => ({
        ...each,
        name: LABELS.get(each.name) ?? each.name,
      })),
    })),
    changedTotal: changed.length,
    same: count - added - changed.length,
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
    lazily([...kit, ...rigs], ({ id, document }) => ({
      name: document.name,
      now: byId.get(id),
      next: document,
    })),
    0,
  );
}

/** Says whether all is as it was when it was looked at. */
export async function tokenOf({ shown, stations, lines }: Plan, file: string): Promise<string> {
  const breathe = breaths();
  const hash = createHash('sha256').update(JSON.stringify([file, shown]));
  for (const { id, revision, status, archived } of stations.values()) {
    hash.update(JSON.stringify([id, revision, status, archived]));
    await breathe();
  }
  for (const { id, document, deleted } of lines.values()) {
    hash.update(JSON.stringify([id, document, deleted]));
    await breathe();
  }
  return hash.digest('hex');
}
