import { sql } from 'drizzle-orm';
import {
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uuid,
  index,
} from 'drizzle-orm/pg-core';
import type { KitItem, Rig, Station } from '@gangway/station';

const moment = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' });

export const jobs = pgTable('jobs', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull(),
  createdAt: moment('created_at').notNull().defaultNow(),
  updatedAt: moment('updated_at').notNull().defaultNow(),
  archivedAt: moment('archived_at'),
  /** What counts as sharp in stations begun in this job; null: the usual. */
  criterion: jsonb('criterion').$type<Station['criterion']>(),
});

export const stations = pgTable(
  'stations',
  {
    id: uuid('id').primaryKey(),
    jobId: uuid('job_id')
      .notNull()
      .references(() => jobs.id),
    revision: integer('revision').notNull(),
    document: jsonb('document').$type<Station>().notNull(),
    /** Kept by the database, so that looking for a free name reads no documents. */
    name: text('name').generatedAlwaysAs(sql`document->>'name'`),
    createdAt: moment('created_at').notNull().defaultNow(),
    updatedAt: moment('updated_at').notNull().defaultNow(),
    archivedAt: moment('archived_at'),
  },
  (table) => [index('stations_by_job').on(table.jobId, table.createdAt)],
);

/** Every accepted save, the present one included; nothing here is ever changed. */
export const revisions = pgTable(
  'station_revisions',
  {
    stationId: uuid('station_id')
      .notNull()
      .references(() => stations.id),
    revision: integer('revision').notNull(),
    document: jsonb('document').$type<Station>().notNull(),
    savedAt: moment('saved_at').notNull().defaultNow(),
  },
  (table) => [primaryKey({ columns: [table.stationId, table.revision] })],
);

export const kitItems = pgTable(
  'kit_items',
  {
    id: uuid('id').primaryKey(),
    kind: text('kind').notNull(),
    revision: integer('revision').notNull(),
    document: jsonb('document').$type<KitItem>().notNull(),
    createdAt: moment('created_at').notNull().defaultNow(),
    updatedAt: moment('updated_at').notNull().defaultNow(),
    archivedAt: moment('archived_at'),
  },
  (table) => [index('kit_items_by_kind').on(table.kind)],
);

/** Every accepted change of an item; `importId` names the import that made it. */
export const kitRevisions = pgTable(
  'kit_revisions',
  {
    itemId: uuid('item_id')
      .notNull()
      .references(() => kitItems.id, { onDelete: 'cascade' }),
    revision: integer('revision').notNull(),
    document: jsonb('document').$type<KitItem>().notNull(),
    savedAt: moment('saved_at').notNull().defaultNow(),
    importId: uuid('import_id'),
  },
  (table) => [
    primaryKey({ columns: [table.itemId, table.revision] }),
    index('kit_revisions_by_import').on(table.importId),
  ],
);

export const rigs = pgTable('rigs', {
  id: uuid('id').primaryKey(),
  revision: integer('revision').notNull(),
  document: jsonb('document').$type<Rig>().notNull(),
  createdAt: moment('created_at').notNull().defaultNow(),
  updatedAt: moment('updated_at').notNull().defaultNow(),
  archivedAt: moment('archived_at'),
});
