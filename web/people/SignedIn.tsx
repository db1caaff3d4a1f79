import { Box, Button } from '@chakra-ui/react';
import { api } from '../app/api.ts';
import { forgetAnswers } from '../app/keptAnswers.ts';
import { PartHeading } from '../app/Page.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useAppDispatch } from '../app/store.ts';
import { useSignOutEverywhereMutation } from './endpoints.ts';
import { useSession } from './useSession.ts';

/** Where a person ends every session of theirs: a tablet was left somewhere, or lent. */
export function SignedIn() {
  const session = useSession();
  const dispatch = useAppDispatch();
  const [signOut, { error, isLoading }] = useSignOutEverywhereMutation();
  if (!session) return null;
  async function leave() {
    if ('error' in (await signOut())) return;
    await forgetAnswers();
    dispatch(api.util.resetApiState());
  }
  return (
    <Box as="section" display="grid" gap="3" justifyItems="start">
      <PartHeading>You</PartHeading>
      <Box>
        Signed in as <b>{session.person.name}</b>. If a tablet was left somewhere, sign out of all of them.
        What a device has not sent yet stays on it until you sign in there again.
      </Box>
      <Button loading={isLoading} onClick={() => void leave()}>
        Sign out everywhere
      </Button>
      <ProblemNote error={error} />
    </Box>
  );
}
