import { Box, Button, Flex, Input } from '@chakra-ui/react';
import { numberTyped } from '@zero-lash/core/length';
import { Labelled, Select } from '../app/Labelled.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useAppDispatch, useAppSelector } from '../app/store.ts';
import { useSimulateGaugeMutation } from '../instruments/endpoints.ts';
import { natureTold } from '../instruments/gauge.ts';

const FIELDS = [
  ['gap', 'Held in a gap of, mm', '0.15'],
  ['noise', 'Noise, mm', '0.001'],
  ['drift', 'Zero moved by, mm', '0'],
  ['dropOuts', 'Lost or cut, 0–1', '0'],
] as const;

/** The stand-in for a gauge in the hand: what it is held in, what is wrong with it, and its button. */
export function SimulatedGaugePanel({ gauge }: { readonly gauge: string }) {
  const nature = useAppSelector((state) => state.gauge.nature);
  const dispatch = useAppDispatch();
  const [tell, { error }] = useSimulateGaugeMutation();
  const press = () =>
    void tell({
      id: gauge,
      press: true,
      unit: nature.unit,
      ...Object.fromEntries(
        FIELDS.map(([name]) => [name, numberTyped(nature[name])]).filter(([, value]) => !Number.isNaN(value)),
      ),
    });
  return (
    <Box
      as="section"
      aria-label="Simulated gauge"
      marginTop="3"
      border="1px dashed"
      borderColor="hairline"
      padding="2"
    >
      <Box fontSize="sm" color="faded">
        This gauge is simulated. Hold it in a gap, and press its button.
      </Box>
      <Box display="grid" gap="2" gridTemplateColumns="1fr 1fr" marginTop="1">
        {FIELDS.map(([name, label]) => (
          <Labelled key={name} label={label}>
            <Input
              value={nature[name]}
              maxLength={12}
              inputMode="decimal"
              onChange={(event) => dispatch(natureTold({ [name]: event.target.value }))}
            />
          </Labelled>
        ))}
        <Labelled label="Set to">
          <Select
            value={nature.unit}
            onChange={(event) => dispatch(natureTold({ unit: event.target.value as 'mm' | 'in' }))}
          >
            <option value="mm">mm</option>
            <option value="in">inches</option>
          </Select>
        </Labelled>
        <Flex alignItems="flex-end">
          <Button variant="solid" width="100%" onClick={press}>
            Press its button
          </Button>
        </Flex>
      </Box>
      <ProblemNote error={error} />
    </Box>
  );
}
