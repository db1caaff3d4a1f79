import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { ReadingRow } from '@zero-lash/contract/measuring';
import { useState, type FormEvent } from 'react';
import { Labelled } from '../app/Labelled.tsx';
import { useBenchWrite } from '../builds/useBenchWrite.ts';

interface Props {
  readonly buildId: string;
  /** the reading that stands at the point, in the round that is open */
  readonly reading: ReadingRow;
}

/** Strikes a reading out, with a reason: the point is then not measured, and what was struck out stays on the record. */
export function StrikeOut({ buildId, reading }: Props) {
  const [open, setOpen] = useState(false);
  const [reason, setReason] = useState('');
  const [complaint, setComplaint] = useState<string>();
  const put = useBenchWrite(buildId);
  function strike(event: FormEvent) {
    event.preventDefault();
    if (reason.trim() === '') return setComplaint('Say in a word why it does not count.');
    put({
      kind: 'reading',
      roundId: reading.roundId,
      body: {
        point: reading.point,
        reading: { kind: 'tries', tries: [], repeatability: 0.01 },
        asTyped: 'struck out',
        reason: reason.trim(),
        instrumentId: null,
        crankAngle: null,
        over: reading.id,
      },
    });
    setOpen(false);
    setReason('');
  }
  if (!open)
    return (
      <Box>
        <Button variant="plain" paddingX="0" onClick={() => setOpen(true)}>
          Strike this reading out…
        </Button>
      </Box>
    );
  return (
    <form onSubmit={strike} noValidate>
      <Flex gap="2" alignItems="flex-end" marginTop="2">
        <Box flex="1">
          <Labelled label="Struck out because" error={complaint}>
            <Input
              value={reason}
              maxLength={160}
              autoFocus
              onChange={(event) => setReason(event.target.value)}
            />
          </Labelled>
        </Box>
        <Button type="submit">Strike out</Button>
        <Button variant="plain" onClick={() => setOpen(false)}>
          Leave it
        </Button>
      </Flex>
    </form>
  );
}
