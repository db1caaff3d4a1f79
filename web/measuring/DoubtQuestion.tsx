import { Box, Button, Flex } from '@chakra-ui/react';
import type { Reading } from '@zero-lash/core/measuring';
import { useEffect, useRef } from 'react';
import { useLengths } from '../app/lengths.ts';
import { Note } from '../app/Note.tsx';

interface Props {
  /** mm, of the lengths far outside the limits */
  readonly lengths: readonly number[];
  readonly meant: Reading | null;
  readonly onUse: (meant: Reading) => void;
  readonly onKeep: () => void;
  readonly onChange: () => void;
}

/** Asks in place about a reading that looks like a slip of unit or decimal point; the suggestion is one key away. */
export function DoubtQuestion({ lengths, meant, onUse, onKeep, onChange }: Props) {
  const { length } = useLengths();
  const first = useRef<HTMLButtonElement>(null);
  useEffect(() => first.current?.focus(), []);
  return (
    <Note role="alert" marginTop="2">
      <Box>
        {lengths.map(length).join(' and ')} is far outside the limits.{' '}
        {meant ? `Did you mean ${inWords(meant, length)}?` : 'Is it right?'}
      </Box>
      <Flex gap="2" marginTop="2" flexWrap="wrap">
        {meant && (
          <Button ref={first} variant="solid" onClick={() => onUse(meant)}>
            Use {inWords(meant, length)}
          </Button>
        )}
        <Button ref={meant ? undefined : first} onClick={onKeep}>
          Keep as typed
        </Button>
        <Button variant="plain" onClick={onChange}>
          Change it
        </Button>
      </Flex>
    </Note>
  );
}

function inWords(reading: Reading, length: (mm: number) => string): string {
  switch (reading.kind) {
    case 'bracket':
      return `${length(reading.go)} to ${length(reading.noGo)}`;
    case 'drag':
      return length(reading.blade);
    case 'value':
      return length(reading.value);
    case 'go-only':
      return `over ${length(reading.go)}`;
    case 'no-go-only':
      return `under ${length(reading.noGo)}`;
    case 'tries':
      return '';
  }
}
