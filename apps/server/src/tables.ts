import { sql } from 'drizzle-orm';
import {
  bigint,
  boolean,
  doublePrecision,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uuid,
  index,
} from 'drizzle-orm/pg-core';
import type { KitItem, Loaded, Logged, Rig, Station, StationDigest } from '@gangway/station';

const moment = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' });

export const jobs = pgTable('jobs', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull(),
  createdAt: moment('created_at').notNull().defaultNow(),
  updatedAt: moment('updated_at').notNull().defaultNow(),
  archivedAt: moment('archived_at'),
  /** What counts as sharp in stations begun in this job; null: the usual. */
  criterion: jsonb('criterion').$type<Station['criterion']>(),
  notes: text('notes'),
  /** Holders and rolls as they were loaded. */
  films: jsonb('films').$type<readonly Loaded[]>(),
  /** Members of its file that this version does not know. */
  more: jsonb('more').$type<Record<string, unknown>>(),
});

/** What every document has, whatever it is of. */
const head = <T>() => ({
  id: uuid('id').primaryKey(),
  revision: integer('revision').notNull(),
  document: jsonb('document').$type<T>().notNull(),
  createdAt: moment('created_at').notNull().defaultNow(),
  updatedAt: moment('updated_at').notNull().defaultNow(),
  archivedAt: moment('archived_at'),
});

/** Kit items whose copies a document holds, kept by the database, so that looking reads no documents. */
const kitIds = () =>
  jsonb('kit_ids').generatedAlwaysAs(sql`jsonb_path_query_array(document, '$.**.kit_id')`);

/** Every accepted save, the present one included; those of old bursts are thinned away. */
const save = <T>() => ({
  revision: integer('revision').notNull(),
  document: jsonb('document').$type<T>().notNull(),
  savedAt: moment('saved_at').notNull().defaultNow(),
  /** What a person called it. */
  name: text('name'),
  /** A person chose to go on from it, or over it. */
  held: boolean('held').notNull().default(false),
});

export const stations = pgTable(
  'stations',
  {
    ...head<Station>(),
    jobId: uuid('job_id')
      .notNull()
      .references(() => jobs.id),
    /** Kept by the database, so that looking for a free name reads no documents. */
    name: text('name').generatedAlwaysAs(sql`document->>'name'`),
    /** Its place in the job’s order; between two others there is always room. */
    position: doublePrecision('position').notNull(),
    /** How far it has come. */
    status: text('status').notNull().default('planned'),
    kitIds: kitIds(),
    /** What a list shows of it, worked out when it was saved: of this revision, and no other. */
    digest: jsonb('digest').$type<StationDigest | null>(),
    digestOf: integer('digest_of'),
  },
  (table) => [
    index('stations_by_job').on(table.jobId, table.position),
    index('stations_by_kit').using('gin', table.kitIds),
  ],
);

export const revisions = pgTable(
  'station_revisions',
  {
    stationId: uuid('station_id')
      .notNull()
      .references(() => stations.id),
    ...save<Station>(),
  },
  (table) => [
    primaryKey({ columns: [table.stationId, table.revision] }),
    index('station_revisions_by_time').on(table.savedAt),
  ],
);

export const kitItems = pgTable(
  'kit_items',
  { ...head<KitItem>(), kind: text('kind').notNull() },
  (table) => [index('kit_items_by_kind').on(table.kind)],
);

/** Every accepted change of an item; `importId` names the import that made it. */
export const kitRevisions = pgTable(
  'kit_revisions',
  {
    itemId: uuid('item_id')
      .notNull()
      .references(() => kitItems.id, { onDelete: 'cascade' }),
    ...save<KitItem>(),
    importId: uuid('import_id'),
  },
  (table) => [
    primaryKey({ columns: [table.itemId, table.revision] }),
    index('kit_revisions_by_import').on(table.importId),
  ],
);

export const rigs = pgTable('rigs', { ...head<Rig>(), kitIds: kitIds() }, (table) => [
  index('rigs_by_kit').using('gin', table.kitIds),
]);

export const rigRevisions = pgTable(
  'rig_revisions',
  {
    rigId: uuid('rig_id')
      .notNull()
      .references(() => rigs.id),
    ...save<Rig>(),
  },
  (table) => [
    primaryKey({ columns: [table.rigId, table.revision] }),
    index('rig_revisions_by_time').on(table.savedAt),
  ],
);

/** What this installation was told to do; one row. */
export const settings = pgTable('settings', {
  id: integer('id').primaryKey().default(1),
  /** Whether older saves are thinned out. Nobody but a person turns it on. */
  thinsSaves: boolean('thins_saves').notNull().default(false),
  /** So many of the newest saves of each document stay whole. */
  savesKeptWhole: integer('saves_kept_whole').notNull().default(200),
});

/** The lines of each job’s log. One that was taken out stays, so that it can be brought back. */
export const exposures = pgTable(
  'exposures',
  {
    id: uuid('id').primaryKey(),
    jobId: uuid('job_id')
      .notNull()
      .references(() => jobs.id),
    document: jsonb('document').$type<Logged>().notNull(),
    /** Its place in the order they were made. */
    position: doublePrecision('position').notNull(),
    /** The job’s changes are counted; this is its latest. */
    seq: bigint('seq', { mode: 'number' }).notNull(),
    deletedAt: moment('deleted_at'),
  },
  (table) => [
    index('exposures_by_job').on(table.jobId, table.position),
    index('exposures_by_change').on(table.jobId, table.seq),
  ],
);
