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
import type { Station } from '@gangway/station';

const moment = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' });

export const jobs = pgTable('jobs', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull(),
  createdAt: moment('created_at').notNull().defaultNow(),
  updatedAt: moment('updated_at').notNull().defaultNow(),
  archivedAt: moment('archived_at'),
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
