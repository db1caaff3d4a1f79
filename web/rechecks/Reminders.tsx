import { Box, Button } from '@chakra-ui/react';
import type { Reminder } from '@zero-lash/contract/reminders';
import { Link } from 'react-router';
import { Empty } from '../app/Page.tsx';
import { Note } from '../app/Note.tsx';
import { Fold } from '../app/Fold.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { ShopTime } from '../app/ShopTime.tsx';
import { useRole } from '../app/useRole.ts';
import { useMailboxQuery, useRemindNowMutation } from './endpoints.ts';

/** What owners and leads were told by mail, what waits to be, and who cannot be told. */
export function Reminders() {
  return (
    <Fold name="letters" title={<b>Reminders by mail</b>} ruled="above">
      <Letters />
    </Fold>
  );
}

function Letters() {
  const { mayLead } = useRole();
  const { data } = useMailboxQuery(undefined, { refetchOnMountOrArgChange: true });
  const [remind, { error, isLoading }] = useRemindNowMutation();
  return (
    <>
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
          {data.reminders.length === 0 && <Empty>Nothing sent yet.</Empty>}
          {data.reminders.map((reminder) => (
            <Letter key={reminder.id} reminder={reminder} />
          ))}
          {mayLead && (
            <Button marginTop="2" loading={isLoading} onClick={() => void remind()}>
              Check and send now
            </Button>
          )}
        </>
      )}
      <ProblemNote error={error} />
    </>
  );
}

function Letter({ reminder }: { readonly reminder: Reminder }) {
  const { subject, address, sentAt, notBefore, tries, complaint, body } = reminder;
  const came = sentAt ? (
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
  );
  const title = (
    <>
      {subject} · {address ?? reminder.recipient} · {came}
    </>
  );
  return (
    <Fold title={title} ruled="below">
      <Box whiteSpace="pre-wrap" fontFamily="mono" fontSize="sm" paddingBottom="2">
        {body}
      </Box>
    </Fold>
  );
}
