import type { KitItem, Rig } from '@gangway/station';
import { api, SENT_AGAIN } from './api.js';
import {
  importedShape,
  refusalShape,
  storedListShape,
  storedShape,
  takenBackShape,
  usedByShape,
  type StoredDocument,
  type UsedBy,
} from './shapes.js';

export interface ImportPart {
  id: string;
  items: { id: string; document: KitItem }[];
  changes: { id: string; baseRevision: number; document: KitItem }[];
}

/** Kit and rigs as they are stored, whatever they hold (`read-kit.ts` reads them), beside the jobs; loaded only where they are needed. */
export const kitApi = api.enhanceEndpoints({ addTagTypes: ['Kit', 'Rigs'] }).injectEndpoints({
  endpoints: (build) => ({
    kit: build.query<StoredDocument[], { archived: boolean }>({
      responseSchema: storedListShape,
      query: ({ archived }) => `kit?archived=${archived}`,
      providesTags: ['Kit'],
    }),
    item: build.query<StoredDocument, string>({
      responseSchema: storedShape,
      query: (id) => `kit/${id}`,
      providesTags: ['Kit'],
    }),
    createItem: build.mutation<StoredDocument, { id: string; document: KitItem }>({
      responseSchema: storedShape,
      query: (body) => ({ url: 'kit', method: 'POST', body }),
      extraOptions: SENT_AGAIN,
      invalidatesTags: ['Kit'],
    }),
    saveItem: build.mutation<
      StoredDocument,
      { id: string; baseRevision: number; document: KitItem }
    >({
      responseSchema: storedShape,
      query: ({ id, ...body }) => ({ url: `kit/${id}`, method: 'PUT', body }),
      extraOptions: SENT_AGAIN,
      invalidatesTags: ['Kit'],
    }),
    archiveItem: build.mutation<StoredDocument, { id: string; archived: boolean }>({
      responseSchema: storedShape,
      query: ({ id, archived }) => ({ url: `kit/${id}`, method: 'PATCH', body: { archived } }),
      extraOptions: SENT_AGAIN,
      invalidatesTags: ['Kit'],
    }),
    duplicateItem: build.mutation<StoredDocument, { id: string; newId: string }>({
      responseSchema: storedShape,
      query: ({ id, newId }) => ({
        url: `kit/${id}/duplicate`,
        method: 'POST',
        body: { id: newId },
      }),
      extraOptions: SENT_AGAIN,
      invalidatesTags: ['Kit'],
    }),
    deleteItem: build.mutation<null, string>({
      query: (id) => ({ url: `kit/${id}`, method: 'DELETE' }),
      extraOptions: SENT_AGAIN,
      invalidatesTags: ['Kit'],
    }),
    usedBy: build.query<UsedBy, string>({
      responseSchema: usedByShape,
      query: (id) => `kit/${id}/used-by`,
      keepUnusedDataFor: 0,
    }),
    importPart: build.mutation<{ added: number; changed: number }, ImportPart>({
      responseSchema: importedShape,
      query: ({ id, ...body }) => ({ url: `kit/imports/${id}`, method: 'PUT', body }),
    }),
    takeBackImport: build.mutation<{ removed: number; restored: number; left: string[] }, string>({
      responseSchema: takenBackShape,
      query: (id) => ({ url: `kit/imports/${id}`, method: 'DELETE' }),
      extraOptions: SENT_AGAIN,
      invalidatesTags: ['Kit'],
    }),
    rigs: build.query<StoredDocument[], { archived: boolean }>({
      responseSchema: storedListShape,
      query: ({ archived }) => `rigs?archived=${archived}`,
      providesTags: ['Rigs'],
    }),
    rig: build.query<StoredDocument, string>({
      responseSchema: storedShape,
      query: (id) => `rigs/${id}`,
      keepUnusedDataFor: 0,
    }),
    createRig: build.mutation<StoredDocument, { id: string; document: Rig }>({
      responseSchema: storedShape,
      query: (body) => ({ url: 'rigs', method: 'POST', body }),
      extraOptions: SENT_AGAIN,
      invalidatesTags: ['Rigs'],
    }),
    saveRig: build.mutation<StoredDocument, { id: string; baseRevision: number; document: Rig }>({
      responseSchema: storedShape,
      query: ({ id, ...body }) => ({ url: `rigs/${id}`, method: 'PUT', body }),
      extraOptions: SENT_AGAIN,
      invalidatesTags: ['Rigs'],
    }),
    archiveRig: build.mutation<StoredDocument, { id: string; archived: boolean }>({
      responseSchema: storedShape,
      query: ({ id, archived }) => ({ url: `rigs/${id}`, method: 'PATCH', body: { archived } }),
      extraOptions: SENT_AGAIN,
      invalidatesTags: ['Rigs'],
    }),
    deleteRig: build.mutation<null, string>({
      query: (id) => ({ url: `rigs/${id}`, method: 'DELETE' }),
      extraOptions: SENT_AGAIN,
      invalidatesTags: ['Rigs'],
    }),
    duplicateRig: build.mutation<StoredDocument, { id: string; newId: string }>({
      responseSchema: storedShape,
      query: ({ id, newId }) => ({
        url: `rigs/${id}/duplicate`,
        method: 'POST',
        body: { id: newId },
      }),
      extraOptions: SENT_AGAIN,
      invalidatesTags: ['Rigs'],
    }),
  }),
});

export const {
  useKitQuery,
  useLazyKitQuery,
  useItemQuery,
  useCreateItemMutation,
  useSaveItemMutation,
  useArchiveItemMutation,
  useDuplicateItemMutation,
  useDeleteItemMutation,
  useUsedByQuery,
  useImportPartMutation,
  useTakeBackImportMutation,
  useRigsQuery,
  useRigQuery,
  useCreateRigMutation,
  useSaveRigMutation,
  useArchiveRigMutation,
  useDuplicateRigMutation,
  useDeleteRigMutation,
} = kitApi;

/** The other version in a refusal, when that is why it was refused. */
export function currentIn(error: unknown): StoredDocument | null {
  const { status, data } = (error ?? {}) as { status?: unknown; data?: unknown };
  return status === 409 ? (refusalShape.safeParse(data).data?.current ?? null) : null;
}
