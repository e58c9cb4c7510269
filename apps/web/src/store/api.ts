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
  document: Station;
  createdAt: string;
  updatedAt: string;
  archived: boolean;
}

export interface StoredRevision {
  revision: number;
  savedAt: string;
  document: Station;
}

/** What the server says when it refuses (RFC 9457). */
export interface ProblemDetails {
  status: number;
  detail: string;
  errors?: Problem[];
  current?: StoredStation;
}

export const api = createApi({
  reducerPath: 'api',
  baseQuery: fetchBaseQuery({ baseUrl: '/api', timeout: 15_000 }),
  tagTypes: ['Jobs', 'Stations'],
  // Another tab or person may have changed a list since it was last seen.
  refetchOnMountOrArgChange: true,
  refetchOnFocus: true,
  endpoints: (build) => ({
    jobs: build.query<ListedJob[], { archived: boolean }>({
      query: ({ archived }) => `jobs?archived=${archived}`,
      providesTags: ['Jobs'],
    }),
    job: build.query<Job, string>({ query: (id) => `jobs/${id}`, providesTags: ['Jobs'] }),
    createJob: build.mutation<Job, { id: string; name: string }>({
      query: (body) => ({ url: 'jobs', method: 'POST', body }),
      invalidatesTags: ['Jobs'],
    }),
    changeJob: build.mutation<
      Job,
      { id: string; name?: string; archived?: boolean; criterion?: Station['criterion'] }
    >({
      query: ({ id, ...body }) => ({ url: `jobs/${id}`, method: 'PATCH', body }),
      invalidatesTags: ['Jobs'],
    }),
    duplicateJob: build.mutation<Job, { id: string; newId: string }>({
      query: ({ id, newId }) => ({
        url: `jobs/${id}/duplicate`,
        method: 'POST',
        body: { id: newId },
      }),
      invalidatesTags: ['Jobs'],
    }),
    stations: build.query<StoredStation[], { jobId: string; archived: boolean }>({
      query: ({ jobId, archived }) => `jobs/${jobId}/stations?archived=${archived}`,
      providesTags: ['Stations'],
    }),
    createStation: build.mutation<StoredStation, { jobId: string; id: string; document: Station }>({
      query: ({ jobId, ...body }) => ({ url: `jobs/${jobId}/stations`, method: 'POST', body }),
      invalidatesTags: ['Stations', 'Jobs'],
    }),
    duplicateStation: build.mutation<StoredStation, { id: string; newId: string }>({
      query: ({ id, newId }) => ({
        url: `stations/${id}/duplicate`,
        method: 'POST',
        body: { id: newId },
      }),
      invalidatesTags: ['Stations', 'Jobs'],
    }),
    archiveStation: build.mutation<StoredStation, { id: string; archived: boolean }>({
      query: ({ id, archived }) => ({ url: `stations/${id}`, method: 'PATCH', body: { archived } }),
      invalidatesTags: ['Stations', 'Jobs'],
    }),
    revisions: build.query<StoredRevision[], string>({
      query: (id) => `stations/${id}/revisions`,
      keepUnusedDataFor: 0,
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
  useRevisionsQuery,
} = api;

/** Whether trying the same again may help: the server or its database is away. */
export function isAway(error: unknown): boolean {
  const { status } = (error ?? {}) as { status?: unknown };
  return typeof status === 'string' || (typeof status === 'number' && status >= 500);
}

/** One sentence for a failed request. */
export function sentence(error: unknown): string {
  const { data, status } = (error ?? {}) as { data?: Partial<ProblemDetails>; status?: unknown };
  const first = data?.errors?.[0];
  if (first) return `${first.pointer.replace(/^\//, '')} ${first.message}.`;
  if (data?.detail) return data.detail;
  return typeof status === 'string'
    ? 'The server does not answer. It will be tried again.'
    : 'Something went wrong. Try again.';
}
