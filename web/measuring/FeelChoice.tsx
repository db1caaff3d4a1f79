import { Box } from '@chakra-ui/react';
import { memo } from 'react';
import { Caution } from '../app/Caution.tsx';
import { dayInWords } from '../app/dates.ts';
import { Labelled, Select } from '../app/Labelled.tsx';
import { feelChosen, type FeelSchool } from '../app/preferences.ts';
import { useAppDispatch, useAppSelector } from '../app/store.ts';
import { BenchChoice } from '../instruments/BenchChoice.tsx';
import type { BenchTools } from '../instruments/useBench.ts';

const SCHOOLS: readonly (readonly [FeelSchool, string, string])[] = [
  ['go-no-go', 'Go and no-go', 'Two blades for the whole role; what fails them is tried step by step.'],
  [
    'blade-by-blade',
    'Go and no-go, blade by blade',
    'One blade over every point of a stop, then the next blade.',
  ],
  ['steps', 'Step by step', 'The blade that settles it is lit; each try narrows the gap.'],
  [
    'drag',
    'One blade, light drag',
    'One figure a point, or a bracket typed; quick, and as good as the hand.',
  ],
  ['indicator', 'Indicator', 'The value read off, give or take what the indicator is good for.'],
  ['gauge', 'Digital gauge', 'The gauge’s own button lands its value here.'],
];

/** The school of feel, and the bench whose blades these are; both of this device. */
export const FeelChoice = memo(function FeelChoice({ bench }: { readonly bench: BenchTools }) {
  const feel = useAppSelector((state) => state.preferences.feel);
  const dispatch = useAppDispatch();
  const line = SCHOOLS.find(([key]) => key === feel)?.[2];
  const used = feel === 'indicator' ? bench.indicator : feel === 'gauge' ? null : bench.bladeSet;
  return (
    <Box marginTop="4" borderTop="1px solid" borderColor="hairline" paddingTop="2">
      {used?.overdue && (
        <Caution>
          {used.name} was due for its check {used.checkDue && `on ${dayInWords(used.checkDue)}`}: check it
          against a block before you go by it.
        </Caution>
      )}
      <Box display="grid" gap="2" gridTemplateColumns="1fr 1fr">
        <Labelled label="Measured by">
          <Select value={feel} onChange={(event) => dispatch(feelChosen(event.target.value as FeelSchool))}>
            {SCHOOLS.map(([key, name]) => (
              <option key={key} value={key}>
                {name}
              </option>
            ))}
          </Select>
        </Labelled>
        <BenchChoice bench={bench} />
      </Box>
      <Box fontSize="sm" color="faded" paddingTop="1">
        {line}
        {used && ` ${used.name}${used.kind === 'blade-set' ? `, up to ${bench.maxStack} stacked` : ''}.`}
      </Box>
    </Box>
  );
});
