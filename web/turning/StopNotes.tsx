import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { KnowHowRow } from '@zero-lash/contract/knowHow';
import type { StageKey } from '@zero-lash/core/builds';
import { apart } from '@zero-lash/core/turning';
import { memo, useState } from 'react';
import { useDraft } from '../app/useDraft.ts';
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
export const StopNotes = memo(function StopNotes({ buildId, known, stage, angle, enabled }: Props) {
  const put = useBenchWrite(buildId);
  const { texts, type, changed, clear } = useDraft(`stop-note:${buildId}:${angle}`, { text: '' });
  const { text } = texts;
  // what was begun and not kept stands there again
  const [asked, setAsked] = useState(false);
  const writing = asked || Object.keys(changed).length > 0;
  const end = () => {
    clear();
    setAsked(false);
  };
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
      {enabled && !writing && (
        <Button variant="plain" paddingX="0" onClick={() => setAsked(true)}>
          Keep a note at this stop
        </Button>
      )}
      {writing && (
        <Flex
          as="form"
          gap="2"
          marginTop="1"
          onSubmit={(event) => {
            event.preventDefault();
            if (text.trim() === '') return;
            const crankAngle = Math.round(angle * 1000) / 1000;
            put({ kind: 'know-how', body: { stage, about: 'stop', crankAngle, text: text.trim() } });
            end();
          }}
        >
          <Input
            aria-label="Note at this stop"
            value={text}
            maxLength={300}
            autoFocus
            placeholder="What the next one wants to know here"
            onChange={({ target }) => type('text', target.value)}
          />
          <Button type="submit" disabled={text.trim() === ''}>
            Save
          </Button>
          <Button variant="plain" onClick={end}>
            Leave it
          </Button>
        </Flex>
      )}
    </Box>
  );
});
