import { Box, Button } from '@chakra-ui/react';
import { skipToken } from '@reduxjs/toolkit/query/react';
import { memo } from 'react';
import { Link } from 'react-router';
import { Note } from '../app/Note.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { StillUnsent } from '../app/StillUnsent.tsx';
import { useOnceSent } from '../app/useOnceSent.ts';
import { useRole } from '../app/useRole.ts';
import type { BuildAbout } from '../builds/buildView.ts';
import { useGoToRevisionMutation } from '../builds/endpoints.ts';
import { useSheetQuery } from '../sheets/endpoints.ts';

/** A revision that is published on another device meanwhile is found without a reload. */
const ASK_EVERY_MS = 60_000;

/** Says of a build that was opened before its book was here that nothing is judged yet, and takes it over to the revision that has the limits. */
export const LimitsToCome = memo(function LimitsToCome({ build }: { readonly build: BuildAbout }) {
  const { limitsToCome, sheetId, number } = build.sheet;
  const { mayWork } = useRole();
  const { data: revisions } = useSheetQuery(limitsToCome && !build.closedAt ? sheetId : skipToken, {
    refetchOnMountOrArgChange: true,
    pollingInterval: ASK_EVERY_MS,
  });
  const [go, { error, isLoading }] = useGoToRevisionMutation();
  const { once, waiting, unsent } = useOnceSent(build.id);
  if (!limitsToCome) return null;
  const next = revisions?.find((each) => each.status === 'published' && each.number > number);
  return (
    <Note marginTop="2" role="status">
      <b>Limits to come.</b> Gaps are read and kept as they are; nothing is judged, set or signed before the
      book is here.
      {!next && (
        <>
          {' '}
          A lead then fills them in as a <Link to={`/sheets/${sheetId}/revise`}>new revision</Link>, and this
          build goes over to it.
        </>
      )}
      {next && mayWork && (
        <Box marginTop="2">
          <Button
            variant="solid"
            loading={isLoading || waiting}
            onClick={() =>
              void once(() => go({ buildId: build.id, version: build.version, revisionId: next.id }))
            }
          >
            Go over to revision {next.number}
          </Button>{' '}
          {next.source.manual}: what was read here is judged by it.
        </Box>
      )}
      {unsent && <StillUnsent buildId={build.id} step="it goes over" />}
      <ProblemNote error={error} />
    </Note>
  );
});
