import { Box, Button } from '@chakra-ui/react';
import { PartHeading } from '../app/Page.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useSignOutEverywhereMutation } from './endpoints.ts';
import { OwnPassphrase } from './OwnPassphrase.tsx';
import { useLeave } from '../app/useLeave.ts';
import { useSession } from '../app/useSession.ts';

/** Where a person ends every session of theirs: a tablet was left somewhere, or lent. */
export function SignedIn() {
  const session = useSession();
  const [signOut, { error }] = useSignOutEverywhereMutation();
  const { leave, leaving, unsent } = useLeave(signOut);
  if (!session) return null;
  return (
    <Box as="section" display="grid" gap="3" justifyItems="start">
      <PartHeading>You</PartHeading>
      <Box>
        Signed in as <b>{session.person.name}</b>. If a tablet was left somewhere, sign out of all of them.
        What a device has not sent yet stays on it until you sign in there again.
      </Box>
      <Button loading={leaving} onClick={() => void leave()}>
        {unsent ? 'Leave it unsent and sign out everywhere' : 'Sign out everywhere'}
      </Button>
      {unsent && (
        <Box role="alert" fontSize="sm" color="tight">
          What you did on this device could not be sent just now.
        </Box>
      )}
      <ProblemNote error={error} />
      <OwnPassphrase />
    </Box>
  );
}
