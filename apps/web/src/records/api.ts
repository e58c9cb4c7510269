import { createApi, fetchBaseQuery } from '@reduxjs/toolkit/query/react';
import type { Problem, Station } from '@gangway/station';

export interface Job {
  id: string;
  name: string;
  createdAt: string;
  updatedAt: string;
  archived: boolean;
  /** What counts as sharp in stations begun here; null: the usual. */
  criterion: Station['criterion'] | null;
}

export interface ListedJob extends Job {
  stations: number;
}

export interface StoredStation {
  id: string;
  jobId: string;
  revision: number;
  /** As it is stored, whatever it holds: read with `keptStation`. */
  document: unknown;
  createdAt: string;
  updatedAt: string;
  archived: boolean;
}

/** A part of a job's stations, and how many there are in all. */
export interface StationPage {
  total: number;
  offset: number;
  items: StoredStation[];
}

/** Stations fetched at a time: more than a screen holds, and quick to fetch. */
export const PAGE = 50;

export interface ListedRevision {
  revision: number;
  savedAt: string;
  /** What a person called it. */
  name: string | null;
}

/** Documents that keep every save, by their address. */
export type Kept = 'stations' | 'rigs';

export interface StoredRevision extends ListedRevision {
  document: unknown;
}

/** What the server says when it refuses (RFC 9457). */
interface ProblemDetails {
  status: number;
  detail: string;
  errors?: Problem[];
  current?: StoredStation;
}

const plain = fetchBaseQuery({ baseUrl: '/api', timeout: 15_000 });

/** Pauses before what failed is sent again, ms. */
const AGAIN_MS = [1000, 2000, 3000, 5000];

/**
 * For changes that have no saver of their own. Each names what it makes, so that one whose answer
 * was lost on the way may be sent again: it is done once.
 */
export const SENT_AGAIN = { again: true } as const;

const baseQuery: typeof plain = async (args, about, extra) => {
  for (let tries = 0; ; tries++) {
    const result = await plain(args, about, extra);
    const { again } = (extra ?? {}) as { again?: boolean };
    const pause = AGAIN_MS[tries];
    if (!result.error || !again || !isAway(result.error) || pause === undefined) return result;
    await new Promise((resolve) => setTimeout(resolve, pause));
  }
};

/** For lists: asked for anew on coming back to them. Pages with an open document are left as they are. */
export const SEEN_ANEW = { refetchOnFocus: true } as const;

export const api = createApi({
  reducerPath: 'api',
  baseQuery,
  tagTypes: ['Jobs', 'Stations', 'Revisions'],
  // Another tab or person may have changed a list since it was last seen.
  refetchOnMountOrArgChange: true,
  endpoints: (build) => ({
    jobs: build.query<ListedJob[], { archived: boolean }>({
      query: ({ archived }) => `jobs?archived=${archived}`,
      providesTags: ['Jobs'],
    }),
    job: build.query<Job, string>({ query: (id) => `jobs/${id}`, providesTags: ['Jobs'] }),
    createJob: build.mutation<Job, { id: string; name: string }>({
      query: (body) => ({ url: 'jobs', method: 'POST', body }),
      extraOptions: SENT_AGAIN,
      invalidatesTags: ['Jobs'],
    }),
    changeJob: build.mutation<
      Job,
      { id: string; name?: string; archived?: boolean; criterion?: Station['criterion'] }
    >({
      query: ({ id, ...body }) => ({ url: `jobs/${id}`, method: 'PATCH', body }),
      extraOptions: SENT_AGAIN,
      invalidatesTags: ['Jobs'],
    }),
    duplicateJob: build.mutation<Job, { id: string; newId: string }>({
      query: ({ id, newId }) => ({
        url: `jobs/${id}/duplicate`,
        method: 'POST',
        body: { id: newId },
      }),
      extraOptions: SENT_AGAIN,
      invalidatesTags: ['Jobs'],
    }),
    stations: build.query<StationPage, { jobId: string; archived: boolean; page: number }>({
      query: ({ jobId, archived, page }) =>
        `jobs/${jobId}/stations?archived=${archived}&offset=${page * PAGE}&limit=${PAGE}`,
      providesTags: ['Stations'],
    }),
    /** The first name of its kind that no station of the job has. */
    freeName: build.query<{ name: string }, { jobId: string; stem: string }>({
      query: ({ jobId, stem }) => ({ url: `jobs/${jobId}/stations/free-name`, params: { stem } }),
      keepUnusedDataFor: 0,
      providesTags: ['Stations'],
    }),
    createStation: build.mutation<StoredStation, { jobId: string; id: string; document: Station }>({
      query: ({ jobId, ...body }) => ({ url: `jobs/${jobId}/stations`, method: 'POST', body }),
      extraOptions: SENT_AGAIN,
      invalidatesTags: ['Stations', 'Jobs'],
    }),
    duplicateStation: build.mutation<StoredStation, { id: string; newId: string }>({
      query: ({ id, newId }) => ({
        url: `stations/${id}/duplicate`,
        method: 'POST',
        body: { id: newId },
      }),
      extraOptions: SENT_AGAIN,
      invalidatesTags: ['Stations', 'Jobs'],
    }),
    archiveStation: build.mutation<StoredStation, { id: string; archived: boolean }>({
      query: ({ id, archived }) => ({ url: `stations/${id}`, method: 'PATCH', body: { archived } }),
      extraOptions: SENT_AGAIN,
      invalidatesTags: ['Stations', 'Jobs'],
    }),
    deleteStation: build.mutation<null, string>({
      query: (id) => ({ url: `stations/${id}`, method: 'DELETE' }),
      extraOptions: SENT_AGAIN,
      invalidatesTags: ['Stations', 'Jobs'],
    }),
    /** Saves before a revision, newest first. */
    revisions: build.query<ListedRevision[], { of: Kept; id: string; before: number }>({
      query: ({ of, id, before }) => `${of}/${id}/revisions?before=${before}&limit=50`,
      keepUnusedDataFor: 0,
      providesTags: ['Revisions'],
    }),
    revision: build.query<StoredRevision, { of: Kept; id: string; revision: number }>({
      query: ({ of, id, revision }) => `${of}/${id}/revisions/${revision}`,
    }),
    nameRevision: build.mutation<
      null,
      { of: Kept; id: string; revision: number; name: string | null }
    >({
      query: ({ of, id, revision, name }) => ({
        url: `${of}/${id}/revisions/${revision}`,
        method: 'PATCH',
        body: { name },
      }),
      extraOptions: SENT_AGAIN,
      invalidatesTags: ['Revisions'],
    }),
  }),
});

export const {
  useJobsQuery,
  useJobQuery,
  useCreateJobMutation,
  useChangeJobMutation,
  useDuplicateJobMutation,
  useStationsQuery,
  useCreateStationMutation,
  useDuplicateStationMutation,
  useArchiveStationMutation,
  useDeleteStationMutation,
  useFreeNameQuery,
  useRevisionsQuery,
  useRevisionQuery,
  useNameRevisionMutation,
} = api;

/** Whether trying the same again may help: the server or its database is away. */
export function isAway(error: unknown): boolean {
  const { status } = (error ?? {}) as { status?: unknown };
  return typeof status === 'string' || (typeof status === 'number' && status >= 500);
}

/** Whether nothing is kept under an address, or nothing can be. */
export function isMissing(error: unknown): boolean {
  const { status } = (error ?? {}) as { status?: unknown };
  return status === 404 || status === 422;
}

/** One sentence for a failed request. */
export function sentence(error: unknown): string {
  const { data, status } = (error ?? {}) as { data?: Partial<ProblemDetails>; status?: unknown };
  const first = data?.errors?.[0];
  if (first) return `${first.pointer.replace(/^\//, '')} ${first.message}.`;
  if (data?.detail) return data.detail;
  return typeof status === 'string'
    ? 'The server does not answer.'
    : 'Something went wrong. Try again.';
}
