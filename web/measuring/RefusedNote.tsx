import { Button, Flex } from '@chakra-ui/react';
import { useAppDispatch } from '../app/store.ts';
import type { OutboxItem } from './deviceStore.ts';
import { answerRefused } from './sender.ts';
import { Note } from '../app/Note.tsx';

/** A reading the server would not have: why, and what can be done; it stays on the device until a person says. */
export function RefusedNote({ item }: { readonly item: OutboxItem }) {
  const dispatch = useAppDispatch();
  return (
    <Note tone="tight" role="alert" marginTop="2">
      {item.reading.asTyped} was not written: {item.refused?.detail}
      <Flex gap="2" marginTop="2" flexWrap="wrap">
        <Button onClick={() => void answerRefused({ dispatch }, item, true)}>Send it again</Button>
        <Button variant="plain" onClick={() => void answerRefused({ dispatch }, item, false)}>
          Throw it away
        </Button>
      </Flex>
    </Note>
  );
}
