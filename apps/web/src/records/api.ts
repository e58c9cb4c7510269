import { createApi, fetchBaseQuery } from '@reduxjs/toolkit/query/react';
import type { Station } from '@gangway/station';
import {
  demoShape,
  freeNameShape,
  jobShape,
  listedJobsShape,
  refusalShape,
  historySetShape,
  historyShape,
  revisionsShape,
  type HistoryLook,
  stationPageShape,
  storedRevisionShape,
  storedStationShape,
  type FreeName,
  type Job,
  type ListedJob,
  type ListedRevision,
  type StationPage,
  type StoredRevision,
  type StoredStation,
} from './shapes.js';

/** Stations fetched at a time: more than a screen holds, and quick to fetch. */
export const PAGE = 50;

/** Documents that keep every save, by their address. */
export type Kept = 'stations' | 'rigs';

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

/** An answer in no shape this page knows; the server may be of a later build. */
const UNREAD = {
  status: 400,
  data: { detail: 'The server’s answer cannot be read. Load this page again.' },
} as const;

/** For lists: asked for anew on coming back to them. Pages with an open document are left as they are. */
export const SEEN_ANEW = { refetchOnFocus: true } as const;

export const api = createApi({
  reducerPath: 'api',
  baseQuery,
  catchSchemaFailure: () => UNREAD,
  tagTypes: ['Jobs', 'Stations', 'Revisions'],
  // Another tab or person may have changed a list since it was last seen.
  refetchOnMountOrArgChange: true,
  endpoints: (build) => ({
    jobs: build.query<ListedJob[], { archived: boolean }>({
      responseSchema: listedJobsShape,
      query: ({ archived }) => `jobs?archived=${archived}`,
      providesTags: ['Jobs'],
    }),
    job: build.query<Job, string>({
      responseSchema: jobShape,
      query: (id) => `jobs/${id}`,
      providesTags: ['Jobs'],
    }),
    createJob: build.mutation<Job, { id: string; name: string }>({
      responseSchema: jobShape,
      query: (body) => ({ url: 'jobs', method: 'POST', body }),
      extraOptions: SENT_AGAIN,
      invalidatesTags: ['Jobs'],
    }),
    /** Brings the demo in. */
    openDemo: build.mutation<{ job: string }, void>({
      responseSchema: demoShape,
      query: () => ({ url: 'demo', method: 'POST', body: {} }),
      extraOptions: SENT_AGAIN,
      invalidatesTags: ['Jobs', 'Stations'],
    }),
    changeJob: build.mutation<
      Job,
      {
        id: string;
        name?: string;
        archived?: boolean;
        criterion?: Station['criterion'];
        notes?: string | null;
        notesWas?: string | null;
      }
    >({
      responseSchema: jobShape,
      query: ({ id, ...body }) => ({ url: `jobs/${id}`, method: 'PATCH', body }),
      extraOptions: SENT_AGAIN,
      invalidatesTags: ['Jobs'],
    }),
    deleteJob: build.mutation<null, string>({
      query: (id) => ({ url: `jobs/${id}`, method: 'DELETE' }),
      extraOptions: SENT_AGAIN,
      invalidatesTags: ['Jobs', 'Stations'],
    }),
    duplicateJob: build.mutation<Job, { id: string; newId: string }>({
      responseSchema: jobShape,
      query: ({ id, newId }) => ({
        url: `jobs/${id}/duplicate`,
        method: 'POST',
        body: { id: newId },
      }),
      extraOptions: SENT_AGAIN,
      invalidatesTags: ['Jobs'],
    }),
    stations: build.query<StationPage, { jobId: string; archived: boolean; page: number }>({
      responseSchema: stationPageShape,
      query: ({ jobId, archived, page }) =>
        `jobs/${jobId}/stations?archived=${archived}&offset=${page * PAGE}&limit=${PAGE}`,
      providesTags: ['Stations'],
    }),
    /** The first name of its kind that no station of the job has. */
    freeName: build.query<FreeName, { jobId: string; stem: string }>({
      responseSchema: freeNameShape,
      query: ({ jobId, stem }) => ({ url: `jobs/${jobId}/stations/free-name`, params: { stem } }),
      keepUnusedDataFor: 0,
      providesTags: ['Stations'],
    }),
    createStation: build.mutation<StoredStation, { jobId: string; id: string; document: Station }>({
      responseSchema: storedStationShape,
      query: ({ jobId, ...body }) => ({ url: `jobs/${jobId}/stations`, method: 'POST', body }),
      extraOptions: SENT_AGAIN,
      invalidatesTags: ['Stations', 'Jobs'],
    }),
    duplicateStation: build.mutation<StoredStation, { id: string; newId: string }>({
      responseSchema: storedStationShape,
      query: ({ id, newId }) => ({
        url: `stations/${id}/duplicate`,
        method: 'POST',
        body: { id: newId },
      }),
      extraOptions: SENT_AGAIN,
      invalidatesTags: ['Stations', 'Jobs'],
    }),
    setStatus: build.mutation<StoredStation, { id: string; status: StoredStation['status'] }>({
      responseSchema: storedStationShape,
      query: ({ id, status }) => ({
        url: `stations/${id}/status`,
        method: 'PUT',
        body: { status },
      }),
      extraOptions: SENT_AGAIN,
      invalidatesTags: ['Stations'],
    }),
    /** Puts a station before another of its job; null: after all. */
    placeStation: build.mutation<StoredStation, { id: string; before: string | null }>({
      responseSchema: storedStationShape,
      query: ({ id, before }) => ({ url: `stations/${id}/place`, method: 'PUT', body: { before } }),
      extraOptions: SENT_AGAIN,
      invalidatesTags: ['Stations'],
    }),
    archiveStation: build.mutation<StoredStation, { id: string; archived: boolean }>({
      responseSchema: storedStationShape,
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
      responseSchema: revisionsShape,
      query: ({ of, id, before }) => `${of}/${id}/revisions?before=${before}&limit=50`,
      keepUnusedDataFor: 0,
      providesTags: ['Revisions'],
    }),
    revision: build.query<StoredRevision, { of: Kept; id: string; revision: number }>({
      responseSchema: storedRevisionShape,
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
    /** How saves are kept, and what keeping so many of the newest whole would take away. */
    history: build.query<HistoryLook, number | null>({
      responseSchema: historyShape,
      query: (whole) => (whole === null ? 'history' : `history?whole=${whole}`),
      keepUnusedDataFor: 0,
      providesTags: ['Revisions'],
    }),
    setHistory: build.mutation<{ gone: number | null }, { thin: boolean; whole: number }>({
      responseSchema: historySetShape,
      query: (body) => ({ url: 'history', method: 'PUT', body }),
      invalidatesTags: ['Revisions'],
    }),
  }),
});

export const {
  useJobsQuery,
  useJobQuery,
  useLazyJobQuery,
  useOpenDemoMutation,
  useCreateJobMutation,
  useChangeJobMutation,
  useDeleteJobMutation,
  useDuplicateJobMutation,
  useStationsQuery,
  useCreateStationMutation,
  useDuplicateStationMutation,
  useSetStatusMutation,
  usePlaceStationMutation,
  useArchiveStationMutation,
  useDeleteStationMutation,
  useFreeNameQuery,
  useLazyFreeNameQuery,
  useRevisionsQuery,
  useRevisionQuery,
  useNameRevisionMutation,
  useHistoryQuery,
  useSetHistoryMutation,
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
  const { data, status } = (error ?? {}) as { data?: unknown; status?: unknown };
  const { errors, detail } = refusalShape.safeParse(data).data ?? {};
  const first = errors?.[0];
  if (first) return `${first.pointer.replace(/^\//, '')} ${first.message}.`;
  if (detail) return detail;
  return typeof status === 'string'
    ? 'The server does not answer.'
    : 'Something went wrong. Try again.';
}
