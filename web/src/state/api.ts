import { changedKit, type KitChange, type KitState } from '@plate-fold/core/bolt';
import type { Glance } from '@plate-fold/core/checks';
import type { LogEntry } from '@plate-fold/core/log';
import type { PlanDocument } from '@plate-fold/core/plan';
import type { Tick } from '@plate-fold/core/sequence';
import type { QuoteRequest } from '@plate-fold/core/weigh';
import { createApi, fetchBaseQuery } from '@reduxjs/toolkit/query/react';

export interface DocumentRow {
  readonly id: string;
  readonly name: string;
  readonly rigName: string;
  readonly bodyKind: string;
  readonly revision: number;
  readonly updatedAt: number;
  /** put away by its owner */
  readonly archivedAt: number | null;
  /** it came with the program, to look at */
  readonly example: boolean;
  readonly lastRunAt: number | null;
}
/** A deleted plan that can be brought back by its key. */
export interface DeletedPlan {
  readonly key: string;
  readonly id: string;
  readonly name: string;
  readonly at: number;
}
/** Copies of the database that the server makes by itself. */
export interface Backups {
  /** where they lie; null where the database is not a file of this machine */
  readonly folder: string | null;
  /** newest first */
  readonly kept: readonly { readonly name: string; readonly at: number; readonly bytes: number }[];
  readonly fault?: string;
}
/** Where an archive is to be had: of one plan, or of everything. */
export const archiveAt = (plan?: string): string =>
  `/api/archive?versions=1${plan === undefined ? '' : `&plan=${encodeURIComponent(plan)}`}`;

/** A version of a plan that the server keeps. */
export interface VersionRow {
  readonly id: number;
  /** the revision it became, or, where it came too late, the one it was made from */
  readonly revision: number;
  readonly kind: 'saved' | 'refused';
  readonly savedAt: number;
}
export interface RunRow {
  readonly id: string;
  readonly buildId: string;
  readonly revision: number;
  /** the service point it is about; null for an installation */
  readonly service: string | null;
  readonly startedAt: number;
  readonly endedAt: number | null;
  /** begun by mistake */
  readonly setAsideAt: number | null;
}
export interface Run extends RunRow {
  readonly documentId: string;
  readonly document: PlanDocument;
  readonly ticks: readonly Tick[];
  /** ids of ticks whose rows cannot be read */
  readonly unread?: readonly string[];
  /** what was counted before it began; null where nothing was */
  readonly kit: KitState | null;
}

/** What lies in the garage: a part by its name on the bag list, or a torque wrench with its range in N·m. */
export interface ShelfEntry {
  readonly kind: 'part' | 'wrench';
  readonly name: string;
  readonly count: number;
  readonly low?: number | null;
  readonly high?: number | null;
}
/** How a run is shared on the local network; `run` is null while none is. */
export interface Share {
  readonly run: string | null;
  readonly addresses?: readonly string[];
  readonly code?: { readonly text: string; readonly expiresAt: number };
  readonly devices?: number;
  /** codes tried in vain while this one is good, and from which addresses */
  readonly wrong?: { readonly tries: number; readonly from: readonly string[] };
}
/** The kit of one build of a plan. */
export interface KitOf {
  readonly document: string;
  readonly build: string;
}

/** A fabricator's answer, when it has come. */
export type Quote =
  | { readonly state: 'working' }
  | {
      readonly state: 'offered';
      readonly price: number;
      readonly days: number;
      readonly lines: readonly { readonly mark: string; readonly price: number }[];
    }
  | { readonly state: 'refused'; readonly reasons: readonly string[] };

/** The address of a plan, whatever its id is made of. */
export const planAt = (id: string): string => `/documents/${encodeURIComponent(id)}`;
/** The address of a run. */
export const runAt = (id: string): string => `/runs/${encodeURIComponent(id)}`;

/** What the server keeps. Reads and writes go through here; the open plan itself lives in the plan slice. */
export const api = createApi({
  reducerPath: 'api',
  baseQuery: fetchBaseQuery({ baseUrl: '/api' }),
  tagTypes: ['documents', 'runs', 'shelf', 'kits', 'log', 'share'],
  endpoints: build => ({
    documents: build.query<readonly DocumentRow[], void>({
      query: () => '/documents',
      providesTags: ['documents'],
    }),
    document: build.query<{ revision: number; updatedAt: number; document: PlanDocument }, string>({
      query: id => planAt(id),
      keepUnusedDataFor: 0,
    }),
    /** asked for by revision, so that a plan that was not changed is not asked for again */
    glance: build.query<Glance, { id: string; revision: number }>({
      query: ({ id }) => `${planAt(id)}/glance`,
      keepUnusedDataFor: 3600,
    }),
    setArchived: build.mutation<unknown, { id: string; archived: boolean }>({
      query: ({ id, archived }) => ({ url: `${planAt(id)}/archived`, method: 'PUT', body: { archived } }),
      invalidatesTags: ['documents'],
    }),
    deleteDocument: build.mutation<DeletedPlan, string>({
      query: id => ({ url: planAt(id), method: 'DELETE' }),
      invalidatesTags: ['documents'],
    }),
    deleted: build.query<readonly DeletedPlan[], void>({
      query: () => '/deleted',
      providesTags: ['documents'],
    }),
    undelete: build.mutation<{ id: string }, string>({
      query: key => ({ url: `/deleted/${encodeURIComponent(key)}`, method: 'POST' }),
      invalidatesTags: ['documents'],
    }),
    addDocument: build.mutation<{ id: string }, PlanDocument>({
      query: document => ({ url: '/documents', method: 'POST', body: { document } }),
      invalidatesTags: ['documents'],
    }),
    saveDocument: build.mutation<
      { revision: number; updatedAt: number },
      { id: string; baseRevision: number; document: PlanDocument }
    >({
      query: ({ id, ...body }) => ({ url: planAt(id), method: 'PUT', body }),
      invalidatesTags: ['documents'],
    }),
    saveChange: build.mutation<
      { revision: number; updatedAt: number },
      { id: string; baseRevision: number; patch: readonly unknown[] }
    >({
      query: ({ id, ...body }) => ({ url: planAt(id), method: 'PATCH', body }),
      invalidatesTags: ['documents'],
    }),
    versions: build.query<readonly VersionRow[], string>({
      query: id => `${planAt(id)}/revisions`,
      keepUnusedDataFor: 0,
    }),
    version: build.query<VersionRow & { document: PlanDocument }, { plan: string; id: number }>({
      query: ({ plan, id }) => `${planAt(plan)}/revisions/${id}`,
    }),
    backups: build.query<Backups, void>({ query: () => '/backups' }),
    restoreArchive: build.mutation<
      { plans: readonly string[]; runs: number; photos: number },
      { file: Blob; existing?: 'replace' | 'both' }
    >({
      query: ({ file, existing }) => ({
        url: `/archive${existing ? `?existing=${existing}` : ''}`,
        method: 'POST',
        body: file,
        headers: { 'content-type': 'application/zip' },
      }),
      invalidatesTags: ['documents', 'runs', 'log', 'shelf', 'kits'],
    }),
    runs: build.query<readonly RunRow[], string>({
      query: id => `${planAt(id)}/runs`,
      providesTags: ['runs'],
    }),
    startRun: build.mutation<{ id: string }, { documentId: string; buildId: string; service?: string }>({
      query: ({ documentId, ...body }) => ({
        url: `${planAt(documentId)}/runs`,
        method: 'POST',
        body,
      }),
      invalidatesTags: ['runs'],
    }),
    run: build.query<Run, string>({ query: id => runAt(id), keepUnusedDataFor: 0 }),
    sendTicks: build.mutation<
      {
        received: readonly string[];
        ticks: readonly Tick[];
        refused?: readonly { id: string | null; fault: string }[];
        unread?: readonly string[];
      },
      { run: string; ticks: readonly Tick[] }
    >({
      query: ({ run, ticks }) => ({ url: `${runAt(run)}/ticks`, method: 'POST', body: { ticks } }),
    }),
    askQuote: build.mutation<{ id: string }, QuoteRequest>({
      query: body => ({ url: '/services/quotes', method: 'POST', body }),
    }),
    quote: build.query<Quote, string>({ query: id => `/services/quotes/${id}`, keepUnusedDataFor: 0 }),
    shelf: build.query<readonly ShelfEntry[], void>({ query: () => '/shelf', providesTags: ['shelf'] }),
    putOnShelf: build.mutation<ShelfEntry, ShelfEntry>({
      query: body => ({ url: '/shelf', method: 'PUT', body }),
      invalidatesTags: ['shelf'],
    }),
    kit: build.query<KitState, KitOf>({
      query: k => `${planAt(k.document)}/kits/${encodeURIComponent(k.build)}`,
      providesTags: ['kits'],
    }),
    changeKit: build.mutation<KitState, KitOf & { change: KitChange }>({
      query: ({ document, build: b, change }) => ({
        url: `${planAt(document)}/kits/${encodeURIComponent(b)}`,
        method: 'PATCH',
        body: change,
      }),
      // shown at once; taken back if the server does not keep it, put right by what it answers
      async onQueryStarted({ change, ...of }, { dispatch, queryFulfilled }) {
        const shown = dispatch(
          api.util.updateQueryData('kit', of, kit => changedKit(kit as KitState, change) as never),
        );
        try {
          const { data } = await queryFulfilled;
          dispatch(api.util.updateQueryData('kit', of, () => data as never));
        } catch {
          shown.undo();
        }
      },
    }),
    endRun: build.mutation<{ ended: boolean }, { run: string; km?: number; minutes?: number }>({
      query: ({ run, ...body }) => ({ url: `${runAt(run)}/end`, method: 'POST', body }),
      invalidatesTags: ['runs', 'log'],
    }),
    setRunAside: build.mutation<{ aside: boolean }, { run: string; aside: boolean }>({
      query: ({ run, aside }) => ({ url: `${runAt(run)}/set-aside`, method: 'POST', body: { aside } }),
      invalidatesTags: ['runs'],
    }),
    sendLogPhoto: build.mutation<{ received: string }, { document: string; id: string; photo: Blob }>({
      query: ({ document, id, photo }) => ({
        url: `${planAt(document)}/log/photos/${encodeURIComponent(id)}`,
        method: 'PUT',
        body: photo,
        headers: { 'content-type': photo.type },
      }),
    }),
    sendSurveyPhoto: build.mutation<{ received: string }, { document: string; id: string; photo: Blob }>({
      query: ({ document, id, photo }) => ({
        url: `${planAt(document)}/photos/${encodeURIComponent(id)}`,
        method: 'PUT',
        body: photo,
        headers: { 'content-type': photo.type },
      }),
    }),
    sendScan: build.mutation<{ received: string }, { document: string; id: string; heights: Blob }>({
      query: ({ document, id, heights }) => ({
        url: `${planAt(document)}/scans/${encodeURIComponent(id)}`,
        method: 'PUT',
        body: heights,
        headers: { 'content-type': 'application/octet-stream' },
      }),
    }),
    takePhotosAlong: build.mutation<{ received: readonly string[] }, { document: string; from: string }>({
      query: ({ document, from }) => ({
        url: `${planAt(document)}/photos`,
        method: 'POST',
        body: { from },
      }),
    }),
    sendPhoto: build.mutation<{ received: string }, { run: string; id: string; photo: Blob }>({
      query: ({ run, id, photo }) => ({
        url: `${runAt(run)}/photos/${encodeURIComponent(id)}`,
        method: 'PUT',
        body: photo,
        headers: { 'content-type': photo.type },
      }),
    }),
    log: build.query<readonly LogEntry[], string>({
      query: id => `${planAt(id)}/log`,
      providesTags: ['log'],
    }),
    addToLog: build.mutation<readonly LogEntry[], { id: string; entries: readonly LogEntry[] }>({
      query: ({ id, entries }) => ({ url: `${planAt(id)}/log`, method: 'POST', body: { entries } }),
      invalidatesTags: ['log'],
    }),
    rightLog: build.mutation<readonly LogEntry[], { id: string; entry: LogEntry }>({
      query: ({ id, entry }) => ({
        url: `${planAt(id)}/log/${encodeURIComponent(entry.id)}`,
        method: 'PUT',
        body: entry,
      }),
      invalidatesTags: ['log'],
    }),
    strikeFromLog: build.mutation<readonly LogEntry[], { id: string; entry: string }>({
      query: ({ id, entry }) => ({ url: `${planAt(id)}/log/${encodeURIComponent(entry)}`, method: 'DELETE' }),
      invalidatesTags: ['log'],
    }),
    share: build.query<Share, void>({ query: () => '/share', providesTags: ['share'] }),
    openShare: build.mutation<Share, string>({
      query: run => ({ url: '/share', method: 'POST', body: { run } }),
      invalidatesTags: ['share'],
    }),
    endShare: build.mutation<Share, void>({
      query: () => ({ url: '/share', method: 'DELETE' }),
      invalidatesTags: ['share'],
    }),
  }),
});

export const {
  useDocumentsQuery,
  useVersionsQuery,
  useBackupsQuery,
  useRestoreArchiveMutation,
  useVersionQuery,
  useAddDocumentMutation,
  useGlanceQuery,
  useSetArchivedMutation,
  useDeleteDocumentMutation,
  useDeletedQuery,
  useUndeleteMutation,
  useSaveDocumentMutation,
  useLazyDocumentQuery,
  useRunsQuery,
  useStartRunMutation,
  useRunQuery,
  useEndRunMutation,
  useSetRunAsideMutation,
  useSendLogPhotoMutation,
  useSendSurveyPhotoMutation,
  useSendScanMutation,
  useTakePhotosAlongMutation,
  useShelfQuery,
  usePutOnShelfMutation,
  useKitQuery,
  useChangeKitMutation,
  useLogQuery,
  useAddToLogMutation,
  useRightLogMutation,
  useStrikeFromLogMutation,
  useShareQuery,
  useOpenShareMutation,
  useEndShareMutation,
} = api;
