import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { Bench, Tools } from '@zero-lash/contract/instruments';
import { Labelled, Select } from '../app/Labelled.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useKeptText } from '../app/useKeptText.ts';
import { useAddBenchMutation, useChangeBenchMutation } from './endpoints.ts';

const STACKS = [1, 2, 3, 4] as const;

const setsOf = ({ instruments }: Tools) =>
  instruments.filter(({ kind, active }) => kind === 'blade-set' && active);

/** Each bench: the blade set that lies on it, and how many blades may be held together there. */
export function Benches({ tools, mayWork }: { readonly tools: Tools; readonly mayWork: boolean }) {
  const [name, setName] = useKeptText('new-bench');
  const [add, { error, isLoading }] = useAddBenchMutation();
  const send = async () => {
    // where there is only one set, it is the one that lies there
    const sets = setsOf(tools);
    const bladeSetId = sets.length === 1 ? sets[0]!.id : null;
    const result = await add({ name: name.trim(), bladeSetId, maxStack: 2 });
    if (!('error' in result)) setName('');
  };
  return (
    <Box>
      {tools.benches.map((bench) => (
        <BenchRow key={bench.id} bench={bench} tools={tools} mayWork={mayWork} />
      ))}
      {mayWork && (
        <Flex gap="2" alignItems="flex-end" marginTop="3">
          <Box flex="1">
            <Labelled label="Another bench">
              <Input value={name} maxLength={60} onChange={(event) => setName(event.target.value)} />
            </Labelled>
          </Box>
          <Button disabled={name.trim() === ''} loading={isLoading} onClick={() => void send()}>
            Add
          </Button>
        </Flex>
      )}
      <ProblemNote error={error} />
    </Box>
  );
}

function BenchRow({
  bench,
  tools,
  mayWork,
}: {
  readonly bench: Bench;
  readonly tools: Tools;
  readonly mayWork: boolean;
}) {
  const [change, { error }] = useChangeBenchMutation();
  const sets = setsOf(tools);
  return (
    <Box borderBottom="1px solid" borderColor="hairline" paddingY="2">
      <b>{bench.name}</b>
      <Box display="grid" gap="2" alignItems="end" gridTemplateColumns="1fr 110px">
        <Labelled label="Its blades">
          <Select
            value={bench.bladeSetId ?? ''}
            disabled={!mayWork}
            aria-label={`Blades of ${bench.name}`}
            onChange={(event) => void change({ id: bench.id, bladeSetId: event.target.value || null })}
          >
            <option value="">none</option>
            {sets.map((set) => (
              <option key={set.id} value={set.id}>
                {set.name}
              </option>
            ))}
          </Select>
        </Labelled>
        <Labelled label="Most blades stacked">
          <Select
            value={bench.maxStack}
            disabled={!mayWork}
            aria-label={`Most blades stacked at ${bench.name}`}
            onChange={(event) => void change({ id: bench.id, maxStack: Number(event.target.value) })}
          >
            {STACKS.map((count) => (
              <option key={count} value={count}>
                {count}
              </option>
            ))}
          </Select>
        </Labelled>
      </Box>
      <ProblemNote error={error} />
    </Box>
  );
}
