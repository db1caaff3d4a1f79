import { Box, Button, Flex } from '@chakra-ui/react';
import type { SheetRevision } from '@zero-lash/contract/sheets';
import { isUnread } from '@zero-lash/core/sheets';
import { Note } from '../app/Note.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useRole } from '../app/useRole.ts';
import { useSession } from '../app/useSession.ts';
import { useReadSecondMutation } from './endpoints.ts';

/** What was published by who wrote it says so, until a second lead has held it against its source. */
export function SecondReading({ sheet }: { readonly sheet: SheetRevision }) {
  const { mayLead } = useRole();
  const me = useSession()?.person.name;
  const [read, { error, isLoading }] = useReadSecondMutation();
  if (!isUnread(sheet)) return null;
  const mine = me !== undefined && sheet.writers.includes(me);
  return (
    <Note marginBottom="4">
      <Flex gap="3" alignItems="center" flexWrap="wrap">
        <Box flex="1" minWidth="260px">
          <b>Nobody else has read this sheet.</b> {sheet.checkedBy} wrote it and published it, with no other
          lead here. {mine ? 'It waits for the second one.' : 'Hold every figure against the source.'}
        </Box>
        {mayLead && !mine && (
          <Button variant="solid" loading={isLoading} onClick={() => void read(sheet.id)}>
            Read against the source: it agrees
          </Button>
        )}
      </Flex>
      <ProblemNote error={error} />
    </Note>
  );
}
