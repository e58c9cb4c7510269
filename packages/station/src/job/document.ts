import * as z from 'zod';
import {
  list,
  oneOf,
  record,
  shown,
  text,
  versionField,
  yesOrNo,
  type Known,
} from '../document/fields.js';
import { loadedListSchema, loggedSchema, uuid, type Logged } from '../document/logged.js';
import { pointerTo, unstorable, type Problem, type Result } from '../document/parse.js';
import { parseStation } from '../document/parse.js';
import { stationSchema } from '../document/schema.js';
import { criterionSchema, type Station } from '../document/station.js';
import { STATUSES } from '../document/status.js';
import { parseKitItem } from '../kit/parse.js';
import { parseRig, rigSchema, type Rig } from '../kit/rig-document.js';
import { kitItemSchema, type KitItem } from '../kit/schema.js';
import { JOB_FORMAT, JOB_VERSION, LARGEST_JOB_BYTES } from './format.js';

/** The job as a file: stations, the exposures made at them, and the gear their copies were taken from. */

const MOST_STATIONS = 20_000;
export const MOST_EXPOSURES = 100_000;

const heldSchema = <T extends z.ZodType>(document: T) => record({ id: uuid(), document });

/** Everything a job says of itself; its lists beside it are read one entry at a time. */
const headShape = {
  format: z.literal(JOB_FORMAT, { error: `must be "${JOB_FORMAT}"` }),
  version: versionField(JOB_VERSION),
  name: text().min(1, { error: 'must not be empty; give it a name' }),
  criterion: criterionSchema.optional(),
  notes: text(20_000).optional(),
  /** Holders and rolls as they were loaded. */
  films: loadedListSchema.optional(),
};

const placedStationSchema = record({
  id: uuid(),
  archived: yesOrNo().optional(),
  status: oneOf(STATUSES).optional(),
  document: stationSchema,
});

export const jobSchema = record({
  ...headShape,
  stations: list(placedStationSchema, MOST_STATIONS),
  exposures: list(loggedSchema, MOST_EXPOSURES),
  rigs: list(heldSchema(rigSchema), 10_000).optional(),
  kit: list(heldSchema(kitItemSchema), 50_000).optional(),
});

export const jobHeadSchema = record(headShape);
export type JobHead = Known<z.infer<typeof jobHeadSchema>>;

export interface JobStation {
  readonly id: string;
  readonly archived?: boolean | undefined;
  readonly status?: (typeof STATUSES)[number] | undefined;
  readonly document: Station;
}

export interface Job extends JobHead {
  readonly stations: readonly JobStation[];
  readonly exposures: readonly Logged[];
  readonly rigs?: readonly { readonly id: string; readonly document: Rig }[];
  readonly kit?: readonly { readonly id: string; readonly document: KitItem }[];
}

/** The lists of a job file, in its order. */
export const JOB_LISTS = ['stations', 'exposures', 'rigs', 'kit'] as const;
export type JobList = (typeof JOB_LISTS)[number];

export const ENTRY_SCHEMAS: { readonly [L in JobList]: z.ZodType } = {
  stations: placedStationSchema,
  exposures: loggedSchema,
  rigs: heldSchema(rigSchema),
  kit: heldSchema(kitItemSchema),
};

/** The JSON Schema (2020-12) of the job file. */
export const jobJsonSchema = (): Record<string, unknown> => ({
  ...z.toJSONSchema(jobSchema, { target: 'draft-2020-12', io: 'input' }),
  title: 'Gangway job, version 1',
});

const under = (pointer: string, problems: readonly Problem[]): Problem[] =>
  problems.map((each) => ({ ...each, pointer: `${pointer}${each.pointer}` }));

const entrySchema = record({
  id: uuid(),
  archived: yesOrNo().optional(),
  status: oneOf(STATUSES).optional(),
});

const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** One entry of a list that holds documents: its id and the document by its own rules. */
function parseHeld(list: Exclude<JobList, 'exposures'>, entry: unknown): Result<unknown> {
  const parse = { stations: parseStation, rigs: parseRig, kit: parseKitItem }[list];
  const found = unstorable(entry);
  if (found) return { ok: false, problems: [found] };
  const own = entrySchema.safeParse(entry);
  const problems = own.success ? [] : faultsOf(own.error);
  if (!isObject(entry)) return { ok: false, problems };
  const read: Result<unknown> = parse(entry.document);
  // What a later rule forbids was stored once and is kept as it is; its page names it.
  const document = read.ok ? read.value : read.readable;
  if (document === undefined && !read.ok) {
    for (const each of under('/document', read.problems)) problems.push(each);
  }
  return problems.length > 0
    ? { ok: false, problems }
    : { ok: true, value: document === entry.document ? entry : { ...entry, document } };
}

const faultsOf = (error: z.ZodError): Problem[] =>
  error.issues.map(({ path, message }) => ({ pointer: pointerTo(path), message }));

/** Reads one line of the log. Unknown fields are kept. */
export function parseLogged(entry: unknown): Result<Logged> {
  const found = unstorable(entry);
  if (found) return { ok: false, problems: [found] };
  const read = loggedSchema.safeParse(entry);
  return read.success
    ? { ok: true, value: entry as Logged }
    : { ok: false, problems: faultsOf(read.error) };
}

/** As many problems as a person reads. */
const MOST_PROBLEMS = 20;

/**
 * Collects a job file entry by entry, so that it can be read as it arrives. What it refuses it
 * names by its pointer.
 */
export class JobReader {
  readonly problems: Problem[] = [];
  private readonly head: Record<string, unknown> = {};
  private readonly lists: Record<JobList, unknown[]> = {
    stations: [],
    exposures: [],
    rigs: [],
    kit: [],
  };
  private readonly ids: Record<JobList, Set<string>> = {
    stations: new Set(),
    exposures: new Set(),
    rigs: new Set(),
    kit: new Set(),
  };
  private readonly given = new Set<string>();

  get full(): boolean {
    return this.problems.length >= MOST_PROBLEMS;
  }

  private refuse(pointer: string, message: string): void {
    if (!this.full) this.problems.push({ pointer, message });
  }

  /** A list is there, be it empty. */
  begin(list: JobList): void {
    this.given.add(list);
  }

  entry(list: JobList, entry: unknown): void {
    this.given.add(list);
    const pointer = `/${list}/${this.lists[list].length}`;
    const read = list === 'exposures' ? parseLogged(entry) : parseHeld(list, entry);
    const value = read.ok ? read.value : entry;
    this.lists[list].push(value);
    if (!read.ok) {
      for (const each of under(pointer, read.problems)) this.refuse(each.pointer, each.message);
      return;
    }
    const { id } = value as { id: string };
    if (this.ids[list].has(id)) this.refuse(`${pointer}/id`, 'is there twice');
    this.ids[list].add(id);
  }

  /** A member that is no list. */
  member(name: string, value: unknown): void {
    if ((JOB_LISTS as readonly string[]).includes(name)) {
      this.refuse(`/${name}`, `must be a list, not ${shown(value)}`);
      this.given.add(name);
    } else {
      Object.defineProperty(this.head, name, { value, enumerable: true, configurable: true, writable: true }); // prettier-ignore
    }
  }

  finish(): Result<Job> {
    const { format, version } = this.head;
    if (format !== JOB_FORMAT) {
      const message = `must be "${JOB_FORMAT}" for a job, not ${shown(format)}`;
      return { ok: false, problems: [{ pointer: '/format', message }] };
    }
    const found = unstorable(this.head);
    if (found) this.refuse(found.pointer, found.message);
    const head = jobHeadSchema.safeParse(this.head);
    if (!head.success) {
      const faults = faultsOf(head.error);
      // Of another version nothing else can be told.
      const first =
        version === JOB_VERSION ? faults : faults.filter((f) => f.pointer === '/version');
      if (version !== JOB_VERSION) return { ok: false, problems: first };
      for (const { pointer, message } of faults) this.refuse(pointer, message);
    }
    for (const list of ['stations', 'exposures'] as const) {
      if (!this.given.has(list)) this.refuse(`/${list}`, 'is missing; give a list');
    }
    this.lists.exposures.forEach((each, i) => {
      const { station } = (each ?? {}) as { station?: unknown };
      if (typeof station === 'string' && !this.ids.stations.has(station)) {
        this.refuse(`/exposures/${i}/station`, 'names a station that is not in this job');
      }
    });
    if (this.problems.length > 0) return { ok: false, problems: this.problems };
    const lists = Object.fromEntries(
      JOB_LISTS.filter((list) => this.given.has(list)).map((list) => [list, this.lists[list]]),
    );
    return { ok: true, value: { ...this.head, ...lists } as unknown as Job };
  }
}

/** Reads a job. Unknown fields are kept. */
export function parseJob(document: unknown): Result<Job> {
  if (!isObject(document)) {
    const message = `must be a JSON object with "format": "${JOB_FORMAT}", not ${shown(document)}`;
    return { ok: false, problems: [{ pointer: '', message }] };
  }
  const reader = new JobReader();
  for (const [name, value] of Object.entries(document)) {
    const list = JOB_LISTS.find((each) => each === name);
    if (list && Array.isArray(value)) {
      reader.begin(list);
      for (const entry of value) if (!reader.full) reader.entry(list, entry);
    } else reader.member(name, value);
  }
  return reader.finish();
}

export const jobTooLarge = (bytes: number): string =>
  `is ${Math.round(bytes / 1e6)} MB; a job file is at most ${LARGEST_JOB_BYTES / 1e6} MB`;

/** {@link parseJob} of a file’s text. */
export function parseJobText(text: string): Result<Job> {
  const fail = (message: string): Result<never> => ({
    ok: false,
    problems: [{ pointer: '', message }],
  });
  if (text.length > LARGEST_JOB_BYTES) return fail(jobTooLarge(text.length));
  if (text.trim() === '') return fail('the file is empty; a job file is a JSON object');
  try {
    return parseJob(JSON.parse(text.replace(/^\uFEFF/, '')));
  } catch {
    return fail('is not JSON; a job file is one JSON object in UTF-8');
  }
}
