import { Button, Flex } from '@chakra-ui/react';
import type { OutboxItem } from './deviceStore.ts';
import { answerRefused } from './sender.ts';
import { Note } from '../app/Note.tsx';

/** A reading the server would not have: why, and what can be done; it stays on the device until a person says. */
export function RefusedNote({ item }: { readonly item: OutboxItem }) {
  return (
    <Note tone="tight" role="alert" marginTop="2">
      {item.reading.asTyped} was not written: {item.refused?.detail}
      <Flex gap="2" marginTop="2" flexWrap="wrap">
        <Button onClick={() => void answerRefused(item.key, true)}>Send it again</Button>
        <Button variant="plain" onClick={() => void answerRefused(item.key, false)}>
          Throw it away
        </Button>
      </Flex>
    </Note>
  );
}
