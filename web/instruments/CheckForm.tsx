import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { Instrument } from '@zero-lash/contract/instruments';
import { parseLength } from '@zero-lash/core/length';
import { addYears, format } from 'date-fns';
import { useState, type FormEvent } from 'react';
import { Labelled } from '../app/Labelled.tsx';
import { useLengths } from '../app/lengths.ts';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useCheckInstrumentMutation } from './endpoints.ts';

/** A check against a block: what the block is, what was found, and when to check again. */
export function CheckForm({
  instrument,
  onDone,
}: {
  readonly instrument: Instrument;
  readonly onDone: () => void;
}) {
  const { unit, length } = useLengths();
  const [block, setBlock] = useState('');
  const [found, setFound] = useState('');
  const [nextDue, setNextDue] = useState(format(addYears(new Date(), 1), 'yyyy-MM-dd'));
  const [note, setNote] = useState('');
  const [wrong, setWrong] = useState(false);
  const [send, { error, isLoading }] = useCheckInstrumentMutation();

  async function check(event: FormEvent) {
    event.preventDefault();
    const [first, second] = [block, found].map((text) => parseLength(text, unit));
    const bad = !first || !second || 'error' in first || 'error' in second || first.mm <= 0 || nextDue === '';
    setWrong(bad);
    if (bad) return;
    const result = await send({ id: instrument.id, block: first.mm, found: second.mm, nextDue, note });
    if (!('error' in result)) onDone();
  }

  return (
    <form onSubmit={(event) => void check(event)} noValidate>
      <Flex gap="3" alignItems="flex-end" flexWrap="wrap" paddingY="2">
        <Box width="130px">
          <Labelled label={`Block, ${unit}`}>
            <Input value={block} inputMode="decimal" onChange={(event) => setBlock(event.target.value)} />
          </Labelled>
        </Box>
        <Box width="130px">
          <Labelled label={`Found, ${unit}`}>
            <Input value={found} inputMode="decimal" onChange={(event) => setFound(event.target.value)} />
          </Labelled>
        </Box>
        <Box width="170px">
          <Labelled label="Check again on">
            <Input type="date" value={nextDue} onChange={(event) => setNextDue(event.target.value)} />
          </Labelled>
        </Box>
        <Box flex="1" minWidth="140px">
          <Labelled label="Note">
            <Input value={note} maxLength={200} onChange={(event) => setNote(event.target.value)} />
          </Labelled>
        </Box>
        <Button type="submit" variant="solid" loading={isLoading}>
          Write down
        </Button>
      </Flex>
      <Box fontSize="sm" color={wrong ? 'tight' : 'faded'} role={wrong ? 'alert' : undefined}>
        {wrong
          ? 'The block and what was found, as lengths such as 0.50, and a day.'
          : `Good where it is within ${length(instrument.uncertainty)} of the block; otherwise it is due again at once.`}
      </Box>
      <ProblemNote error={error} />
    </form>
  );
}
