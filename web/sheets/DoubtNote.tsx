import { Button, Flex } from '@chakra-ui/react';
import type { Doubt } from './doubts.ts';
import { Note } from '../app/Note.tsx';

interface Props {
  readonly doubt: Doubt;
  readonly onUse?: (suggestion: string) => void;
  readonly onSettle: (key: string) => void;
}

/** Asks in place about a figure that looks like a slip; it never blocks a person who is sure. */
export function DoubtNote({ doubt, onUse, onSettle }: Props) {
  const { key, text, suggestion } = doubt;
  return (
    <Note role="alert" gridColumn="1 / -1">
      {text}
      {suggestion && ` Did you mean ${suggestion}?`}
      <Flex gap="2" marginTop="2" flexWrap="wrap">
        {suggestion && onUse && (
          <Button variant="solid" onClick={() => onUse(suggestion)}>
            Use {suggestion}
          </Button>
        )}
        <Button onClick={() => onSettle(key)}>It is as the source says</Button>
      </Flex>
    </Note>
  );
}
