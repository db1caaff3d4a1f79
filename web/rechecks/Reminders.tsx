import { Box, Button } from '@chakra-ui/react';
import type { Reminder } from '@zero-lash/contract/reminders';
import { useState } from 'react';
import { Link } from 'react-router';
import { Empty } from '../app/Page.tsx';
import { Note } from '../app/Note.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { ShopTime } from '../people/ShopTime.tsx';
import { useRole } from '../people/useRole.ts';
import { useMailboxQuery, useRemindNowMutation } from './endpoints.ts';

/** What owners and leads were told by mail, what waits to be, and who cannot be told. */
export function Reminders() {
  const { mayLead } = useRole();
  const [open, setOpen] = useState(false);
  const { data } = useMailboxQuery(undefined, { skip: !open, refetchOnMountOrArgChange: true });
  const [remind, { error, isLoading }] = useRemindNowMutation();
  return (
    <Box
      as="details"
      borderTop="1px solid"
      borderColor="hairline"
      onToggle={(event) => setOpen((event.target as HTMLDetailsElement).open)}
    >
      <Box as="summary" minHeight="44px" paddingY="2" cursor="pointer">
        <b>Reminders by mail</b>
      </Box>
      {data && (
        <>
          <Box fontSize="sm" color="faded" marginBottom="2">
            {data.through === 'mailbox'
              ? 'Letters go into the mailbox that ships with the program: files in a folder, sent to nobody.'
              : 'Letters go out by the mail server that is set.'}{' '}
            Each is sent once; none in the quiet hours of the shop.
          </Box>
          {data.unreached.length > 0 && (
            <Note marginBottom="2">
              Nobody is told of{' '}
              {data.unreached.map(({ engineId, engine, owner }, index) => (
                <span key={engineId}>
                  {index > 0 && ', '}
                  <Link to={`/engines/${engineId}`}>{engine}</Link>
                  {owner === '' ? ' (no owner)' : ` (${owner} has no address)`}
                </span>
              ))}
              . <Link to="/owners">Owners</Link>
            </Note>
          )}
          {data.reminders.length === 0 && <Empty>Nothing was told yet.</Empty>}
          {data.reminders.map((reminder) => (
            <Letter key={reminder.id} reminder={reminder} />
          ))}
          {mayLead && (
            <Button marginTop="2" loading={isLoading} onClick={() => void remind()}>
              Look and send now
            </Button>
          )}
        </>
      )}
      <ProblemNote error={error} />
    </Box>
  );
}

function Letter({ reminder }: { readonly reminder: Reminder }) {
  const { subject, address, sentAt, notBefore, tries, complaint, body } = reminder;
  return (
    <Box as="details" borderBottom="1px solid" borderColor="hairline">
      <Box as="summary" minHeight="44px" paddingY="2" cursor="pointer">
        {subject} · {address} ·{' '}
        {sentAt ? (
          <>
            sent <ShopTime at={sentAt} />
          </>
        ) : complaint === 'not wanted any more' ? (
          complaint
        ) : (
          <>
            waits until <ShopTime at={notBefore} />
            {tries > 0 && `: tried ${tries === 1 ? 'once' : `${tries} times`}, ${complaint}`}
          </>
        )}
      </Box>
      <Box whiteSpace="pre-wrap" fontFamily="mono" fontSize="sm" paddingBottom="2">
        {body}
      </Box>
    </Box>
  );
}
