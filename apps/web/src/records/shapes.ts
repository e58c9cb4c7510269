import * as z from 'zod';
import { STATUSES } from '@gangway/station';

/** What the server answers, held to its shape before anything is made of it. */

export const jobShape = z.object({
  id: z.string(),
  name: z.string(),
  createdAt: z.string(),
  updatedAt: z.string(),
  archived: z.boolean(),
  /** What counts as sharp in stations begun here, as it is stored; null: the usual. */
  criterion: z.unknown(),
  notes: z.string().nullable(),
});
export const listedJobsShape = z.array(jobShape.extend({ stations: z.number() }));

export const storedShape = z.object({
  id: z.string(),
  revision: z.number(),
  /** As it is stored, whatever it holds: read with `store/kept.ts`, `read-kit.ts` or their like. */
  document: z.unknown(),
  updatedAt: z.string(),
  archived: z.boolean(),
  jobId: z.string().optional(),
});
export const storedListShape = z.array(storedShape);

export const storedStationShape = storedShape.extend({
  jobId: z.string(),
  createdAt: z.string(),
  status: z.enum(STATUSES),
  /** What the list shows, worked out with the save; null where nothing can be. */
  digest: z
    .object({
      standing: z.enum(['within', 'costs', 'outside']),
      figure: z.string(),
      words: z.string(),
      rest: z.string(),
    })
    .nullish()
    .catch(null),
});

/** How long saves are kept, and what a setting would take away. */
export const historyShape = z.object({
  thin: z.boolean(),
  whole: z.number(),
  tried: z.number(),
  would: z.object({ saves: z.number(), of: z.number(), documents: z.number() }),
});
export type HistoryLook = z.infer<typeof historyShape>;
export const historySetShape = z.object({ gone: z.number().nullable() });

/** A part of a job's stations, and how many there are in all. */
export const stationPageShape = z.object({
  total: z.number(),
  offset: z.number(),
  items: z.array(storedStationShape),
});

/** The job the demo lies in. */
export const demoShape = z.object({ job: z.string() });

/** A name that no station of a job has yet. */
export const freeNameShape = z.object({ name: z.string() });

const revisionShape = z.object({
  revision: z.number(),
  savedAt: z.string(),
  /** What a person called it. */
  name: z.string().nullable(),
});
export const revisionsShape = z.array(revisionShape);
export const storedRevisionShape = revisionShape.extend({ document: z.unknown() });

export const usedByShape = z.object({
  rigs: z.array(z.object({ id: z.string(), name: z.string() })),
  stations: z.array(
    z.object({ id: z.string(), jobId: z.string(), name: z.string(), job: z.string() }),
  ),
});

export const importedShape = z.object({ added: z.number(), changed: z.number() });
export const takenBackShape = z.object({
  removed: z.number(),
  restored: z.number(),
  left: z.array(z.string()),
});

/** What the server says when it refuses (RFC 9457), and what is there where that is why. */
export const refusalShape = z.object({
  detail: z.string().optional(),
  errors: z.array(z.object({ pointer: z.string(), message: z.string() })).optional(),
  current: storedShape.optional(),
  /** The notes of a job that are there instead of those one opened. */
  notes: z.string().nullable().optional(),
});

export type Job = z.infer<typeof jobShape>;
export type ListedJob = z.infer<typeof listedJobsShape>[number];
/** One stored document, whatever it is of. */
export type StoredDocument = Readonly<z.infer<typeof storedShape>>;
export type StoredStation = z.infer<typeof storedStationShape>;
export type StationPage = z.infer<typeof stationPageShape>;
export type ListedRevision = z.infer<typeof revisionShape>;
export type StoredRevision = z.infer<typeof storedRevisionShape>;
export type FreeName = z.infer<typeof freeNameShape>;
export type UsedBy = z.infer<typeof usedByShape>;
