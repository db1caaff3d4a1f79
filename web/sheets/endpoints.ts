import type {
  DraftChange,
  NewSheet,
  SheetBody,
  SheetRevision,
  SheetSummary,
} from '@zero-lash/contract/sheets';
import { api, write } from '../app/api.ts';

export const sheetsApi = api.injectEndpoints({
  endpoints: (build) => ({
    sheets: build.query<SheetSummary[], void>({ query: () => 'sheets', providesTags: ['Sheet'] }),
    sheet: build.query<SheetRevision[], string>({
      query: (id) => `sheets/${id}`,
      providesTags: (_result, _error, id) => [{ type: 'Sheet', id }],
    }),
    addSheet: build.mutation<SheetRevision, NewSheet>({
      query: (body) => write('POST', 'sheets', body),
      invalidatesTags: ['Sheet'],
    }),
    reviseSheet: build.mutation<SheetRevision, { sheetId: string; body: SheetBody }>({
      query: ({ sheetId, body }) => write('POST', `sheets/${sheetId}/revisions`, { body }),
      invalidatesTags: ['Sheet'],
    }),
    changeDraft: build.mutation<SheetRevision, DraftChange & { id: string }>({
      query: ({ id, ...body }) => write('PUT', `sheet-revisions/${id}`, body),
      invalidatesTags: ['Sheet'],
    }),
    readSecond: build.mutation<SheetRevision, string>({
      query: (id) => write('POST', `sheet-revisions/${id}/second-reading`),
      invalidatesTags: ['Sheet', 'Today'],
    }),
    publishDraft: build.mutation<SheetRevision, { id: string; version: number }>({
      query: ({ id, version }) => write('POST', `sheet-revisions/${id}/publication`, { version }),
      // a refusal shows what changed since it was read: what was read must stand still for that
      invalidatesTags: (_result, error) => (error ? [] : ['Sheet', 'Today']),
    }),
  }),
});

export const {
  useSheetsQuery,
  useSheetQuery,
  useLazySheetQuery,
  useAddSheetMutation,
  useReviseSheetMutation,
  useChangeDraftMutation,
  usePublishDraftMutation,
  useReadSecondMutation,
} = sheetsApi;
