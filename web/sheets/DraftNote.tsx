import { Box, Button, Flex } from '@chakra-ui/react';
import type { SheetRevision } from '@zero-lash/contract/sheets';
import { problemFrom } from '../app/api.ts';
import { Note } from '../app/Note.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useSession } from '../app/useSession.ts';
import { useRole } from '../app/useRole.ts';
import { ChangeList } from './ChangeList.tsx';
import { usePublishDraftMutation } from './endpoints.ts';
import { Unknowns } from './Unknowns.tsx';

interface Props {
  /** as it was read */
  readonly sheet: SheetRevision;
  /** as it is by now */
  readonly now: SheetRevision;
  /** shows the draft as it stands now */
  readonly onReread: () => void;
}

/** What a draft waits for, and for a lead the way to publish it, as it was read and not as it was changed since. */
export function DraftNote({ sheet, now: known, onReread }: Props) {
  const { mayLead } = useRole();
  const session = useSession();
  const [publish, { error, isLoading, reset }] = usePublishDraftMutation();
  if (sheet.status === 'foreign')
    return (
      <Note marginBottom="4">
        This sheet came with an engine of another shop, whose history it carries. Nobody here has held its
        figures against the source, so no build is opened on it: write a new revision of your own, and have it
        checked and published here.
      </Note>
    );
  if (sheet.status !== 'draft') return null;
  const problem = problemFrom(error);
  const refused = problem?.code === 'stale' ? (problem.current as SheetRevision) : null;
  const now = known.version === sheet.version ? refused : known;
  const alone = Boolean(session?.soleLead && sheet.writers.includes(session.person.name));
  return (
    <Note marginBottom="4">
      <Flex gap="3" alignItems="center" flexWrap="wrap">
        <Box flex="1" minWidth="260px">
          A draft by {sheet.enteredBy}.{' '}
          {alone
            ? 'There is no other lead here to read it: hold every figure against the source yourself once more, after a break, and publish it. It says that nobody else has read it, until somebody has.'
            : 'A second person, a lead, holds every figure against the source and publishes it.'}{' '}
          From then on it never changes, and engines may be built on it.
        </Box>
        {mayLead && !now && (
          <Button
            variant="solid"
            loading={isLoading}
            onClick={() => void publish({ id: sheet.id, version: sheet.version })}
          >
            Checked against the source: publish
          </Button>
        )}
      </Flex>
      <Unknowns sheet={sheet} title="Published with this not known" />
      {!now && <ProblemNote error={error} />}
      {now && (
        <Box role="alert" marginTop="3">
          <Box>
            {now.enteredBy} changed this draft while you read it. Hold what changed against the source too.
          </Box>
          <ChangeList from={sheet} to={now} before="You read" after="It says now" />
          <Button
            marginTop="2"
            onClick={() => {
              reset();
              onReread();
            }}
          >
            Show it as it is now
          </Button>
        </Box>
      )}
    </Note>
  );
}
