import type { NewSheet, SheetRevision } from '@zero-lash/contract/sheets';
import { useState } from 'react';
import { useLocation, useNavigate, useParams, useSearchParams } from 'react-router';
import { Page } from '../app/Page.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useAppDispatch } from '../app/store.ts';
import { draftTyped } from '../app/drafts.ts';
import {
  useAddSheetMutation,
  useChangeDraftMutation,
  useReviseSheetMutation,
  useSheetQuery,
} from './endpoints.ts';
import { FRESH_SHEET } from './formValues.ts';
import { valuesFrom, valuesOf } from './sheetCodec.ts';
import { SheetForm } from './SheetForm.tsx';

type Send = Parameters<typeof SheetForm>[0]['onKeep'];

/** Forgets what was typed on this device, and shows the sheet as the server has it. */
function useLeave(place: string) {
  const navigate = useNavigate();
  const dispatch = useAppDispatch();
  return (sheetId: string, number?: number) => {
    dispatch(draftTyped({ key: place, text: '' }));
    void navigate(number === undefined ? `/sheets/${sheetId}` : `/sheets/${sheetId}?revision=${number}`);
  };
}

/** A new sheet: from nothing, from another sheet, or from a file. */
export function NewSheetPage() {
  const [search] = useSearchParams();
  const { state } = useLocation() as { state: { file?: NewSheet } | null };
  const copy = search.get('copy');
  const { data: revisions, error: missing } = useSheetQuery(copy ?? '', { skip: copy === null });
  const [add, { error, isLoading }] = useAddSheetMutation();
  const navigate = useNavigate();
  const place = state?.file ? 'sheet:file' : copy ? `sheet:copy:${copy}` : 'sheet:new';
  const leave = useLeave(place);
  if (missing) return <ProblemNote error={missing} />;
  if (copy && !revisions) return null;
  const source = revisions?.find(({ status }) => status === 'published') ?? revisions?.[0];
  const start = state?.file
    ? valuesOf(state.file)
    : source
      ? { ...valuesFrom(source), name: '' }
      : FRESH_SHEET;
  const keep: Send = async (sheet) => {
    const result = await add(sheet);
    if ('data' in result && result.data) leave(result.data.sheetId);
  };
  return (
    <Page
      title="New spec sheet"
      under={
        state?.file
          ? 'Read from a file: nothing is kept until you keep it'
          : source
            ? `Copied from the ${source.maker} ${source.name}: give it its own name and source`
            : 'Everything with its source; a second person checks it before it is published'
      }
    >
      <SheetForm
        key={place}
        place={place}
        start={start}
        named={false}
        keepWords="Keep as a draft"
        onKeep={keep}
        onCancel={() => void navigate('/sheets')}
        error={error}
        sending={isLoading}
      />
    </Page>
  );
}

/** The next revision of a published sheet. */
export function ReviseSheetPage() {
  const { id = '' } = useParams();
  const { data: revisions, error: missing } = useSheetQuery(id);
  const [revise, { error, isLoading }] = useReviseSheetMutation();
  const place = `sheet:revise:${id}`;
  const leave = useLeave(place);
  if (missing) return <ProblemNote error={missing} />;
  const newest = revisions?.[0];
  if (!newest) return null;
  const keep: Send = async ({ body }) => {
    const result = await revise({ sheetId: id, body });
    if ('data' in result && result.data) leave(id, result.data.number);
  };
  return (
    <Page
      title={`${newest.maker} ${newest.name}, a new revision`}
      under={`Starts from revision ${newest.number}, which stays as it is: builds keep theirs`}
    >
      <SheetForm
        place={place}
        start={valuesFrom(newest)}
        named
        keepWords="Keep as a draft"
        onKeep={keep}
        onCancel={() => leave(id)}
        error={error}
        sending={isLoading}
      />
    </Page>
  );
}

/** A draft, changed until a second person publishes it. */
export function DraftPage() {
  const { id = '' } = useParams();
  const { data: revisions, error: missing } = useSheetQuery(id);
  const draft = revisions?.find(({ status }) => status === 'draft');
  if (missing) return <ProblemNote error={missing} />;
  if (!revisions) return null;
  if (!draft) return <Page title="No draft">This sheet has no draft: it was published meanwhile.</Page>;
  return <Draft key={draft.id} newest={draft} />;
}

function Draft({ newest }: { readonly newest: SheetRevision }) {
  // what was opened is what is changed, however often the list behind it is fetched again
  const [draft] = useState(newest);
  const [change, { error, isLoading }] = useChangeDraftMutation();
  const place = `sheet:draft:${draft.id}`;
  const leave = useLeave(place);
  const keep: Send = async (sheet, over) => {
    const { version } = over ?? draft;
    const result = await change({ ...sheet, id: draft.id, version });
    if ('data' in result && result.data) leave(draft.sheetId, draft.number);
  };
  return (
    <Page
      title={`${draft.maker} ${draft.name}`}
      under={`Revision ${draft.number}, a draft by ${draft.enteredBy}`}
    >
      <SheetForm
        place={place}
        start={valuesFrom(draft)}
        named={draft.number > 1}
        keepWords="Keep the draft"
        onKeep={keep}
        onCancel={() => leave(draft.sheetId, draft.number)}
        error={error}
        sending={isLoading}
      />
    </Page>
  );
}
