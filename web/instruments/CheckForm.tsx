import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { Instrument } from '@zero-lash/contract/instruments';
import { parseLength } from '@zero-lash/core/length';
import { addYears, format } from 'date-fns';
import { useState, type FormEvent } from 'react';
import { Labelled } from '../app/Labelled.tsx';
import type { ShopUnit } from '@zero-lash/core/length';
import { useLengths } from '../app/lengths.ts';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useKeptText } from '../app/useKeptText.ts';
import { useCheckInstrumentMutation } from './endpoints.ts';
import { TORQUE_UNIT, torqueTyped } from './torqueTyped.ts';
import { STAMPED } from './useBench.ts';

/** A length as it is typed, in mm; null where it is none. */
function lengthTyped(text: string, unit: ShopUnit): number | null {
  const read = parseLength(text, unit);
  return 'error' in read ? null : read.mm;
}

/** A check against a block, or of a wrench against a tester: what the block is, what was found, and when to check again. */
export function CheckForm({
  instrument,
  onDone,
}: {
  readonly instrument: Instrument;
  readonly onDone: () => void;
}) {
  const { unit, figure, length } = useLengths(STAMPED[instrument.unit]);
  const wrench = instrument.torque !== null;
  const asked = wrench
    ? { block: `Set to, ${TORQUE_UNIT[instrument.unit]}`, found: `It gave, ${TORQUE_UNIT[instrument.unit]}` }
    : { block: `Block, ${unit}`, found: `Found, ${unit}` };
  const [block, setBlock] = useKeptText(`check:${instrument.id}:block`);
  const [found, setFound] = useKeptText(`check:${instrument.id}:found`);
  const [nextDue, setNextDue] = useState(format(addYears(new Date(), 1), 'yyyy-MM-dd'));
  const [note, setNote] = useKeptText(`check:${instrument.id}:note`);
  const [wrong, setWrong] = useState(false);
  const [send, { error, isLoading }] = useCheckInstrumentMutation();

  async function check(event: FormEvent) {
    event.preventDefault();
    const read = (text: string) =>
      wrench ? torqueTyped(text, TORQUE_UNIT[instrument.unit]) : lengthTyped(text, unit);
    const [first, second] = [read(block), read(found)];
    const bad = first === null || second === null || first <= 0 || nextDue === '';
    setWrong(bad);
    if (bad) return;
    const result = await send({ id: instrument.id, block: first, found: second, nextDue, note });
    if ('error' in result) return;
    for (const empty of [setBlock, setFound, setNote]) empty('');
    onDone();
  }

  return (
    <form onSubmit={(event) => void check(event)} noValidate>
      <Flex gap="3" alignItems="flex-end" flexWrap="wrap" paddingY="2">
        <Box width="130px">
          <Labelled label={asked.block}>
            <Input
              value={block}
              maxLength={20}
              inputMode="decimal"
              onChange={(event) => setBlock(event.target.value)}
            />
          </Labelled>
        </Box>
        <Box width="130px">
          <Labelled label={asked.found}>
            <Input
              value={found}
              maxLength={20}
              inputMode="decimal"
              onChange={(event) => setFound(event.target.value)}
            />
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
          ? wrench
            ? 'What it was set to and what a tester says it gave, such as 20 and 20.4, and a day.'
            : `The block and what was found, as lengths such as ${figure(0.5)}, and a day.`
          : `Good where it is within ${wrench ? `${instrument.uncertainty} % of what it is set to` : `${length(instrument.uncertainty)} of the block`}; otherwise it is due again at once.`}
      </Box>
      <ProblemNote error={error} />
    </form>
  );
}
