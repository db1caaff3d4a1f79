import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { KnowHowRow } from '@zero-lash/contract/knowHow';
import type { StageKey } from '@zero-lash/core/builds';
import { apart } from '@zero-lash/core/turning';
import { useState } from 'react';
import { useBenchWrite } from '../builds/useBenchWrite.ts';

interface Props {
  readonly buildId: string;
  readonly known: readonly KnowHowRow[];
  readonly stage: StageKey;
  /** crank degrees */
  readonly angle: number;
  readonly enabled: boolean;
}

/** What the shop knows of a stop of this pattern, and a line to keep something for the next who stands there. */
export function StopNotes({ buildId, known, stage, angle, enabled }: Props) {
  const put = useBenchWrite(buildId);
  const [text, setText] = useState<string | null>(null);
  const rows = known.filter(
    ({ about, crankAngle, dropped }) => !dropped && about === 'stop' && apart(crankAngle ?? 0, angle) < 1,
  );
  return (
    <Box fontSize="sm" marginTop="1">
      {rows.map((row) => (
        <Box key={row.id}>
          {row.text}{' '}
          <Box as="span" color="faded">
            · {row.by}
          </Box>
        </Box>
      ))}
      {enabled && text === null && (
        <Button variant="plain" paddingX="0" onClick={() => setText('')}>
          Keep a note at this stop
        </Button>
      )}
      {text !== null && (
        <Flex
          as="form"
          gap="2"
          marginTop="1"
          onSubmit={(event) => {
            event.preventDefault();
            if (text.trim() === '') return;
            const crankAngle = Math.round(angle * 1000) / 1000;
            put({ kind: 'know-how', body: { stage, about: 'stop', crankAngle, text: text.trim() } });
            setText(null);
          }}
        >
          <Input
            aria-label="Note at this stop"
            value={text}
            maxLength={300}
            autoFocus
            placeholder="What the next one wants to know here"
            onChange={({ target }) => setText(target.value)}
          />
          <Button type="submit" disabled={text.trim() === ''}>
            Keep
          </Button>
          <Button variant="plain" onClick={() => setText(null)}>
            Leave it
          </Button>
        </Flex>
      )}
    </Box>
  );
}
