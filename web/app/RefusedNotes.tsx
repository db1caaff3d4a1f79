import { Button, Flex } from '@chakra-ui/react';
import { shallowEqual } from 'react-redux';
import type { OutboxItem } from './outboxItem.ts';
import { Note } from './Note.tsx';
import { answerRefused } from './sender.ts';
import { useAppDispatch, useAppSelector } from './store.ts';
import { WorkedList } from './WorkedList.tsx';

interface Props {
  readonly buildId: string;
  /** which of what was refused in the build is shown here */
  readonly which: (item: OutboxItem) => boolean;
}

/** What the server would not have: why, and what can be done; it stays on the device until a person says. */
export function RefusedNotes({ buildId, which }: Props) {
  const dispatch = useAppDispatch();
  // what is refused changes seldom, what waits at every tap
  const items = useAppSelector(
    (state) => state.outbox.items.filter((item) => item.buildId === buildId && item.refused !== null),
    shallowEqual,
  );
  return (
    <WorkedList items={items.filter(which)} keyOf={({ key }) => key} answered="Answered.">
      {(item) => (
        <Note tone="tight" role="alert" marginTop="2">
          {item.said || item.about} was not written: {item.refused?.detail}
          <Flex gap="2" marginTop="2" flexWrap="wrap">
            {item.refused?.code === 'taken_when' ? (
              <Button onClick={() => void answerRefused({ dispatch }, item, 'now')}>
                It holds now: write it down as of now
              </Button>
            ) : (
              <Button onClick={() => void answerRefused({ dispatch }, item, 'again')}>Send it again</Button>
            )}
            <Button variant="plain" onClick={() => void answerRefused({ dispatch }, item, 'away')}>
              Throw it away
            </Button>
          </Flex>
        </Note>
      )}
    </WorkedList>
  );
}
