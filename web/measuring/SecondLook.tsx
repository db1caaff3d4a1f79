import { Box } from '@chakra-ui/react';
import type { ReadingRow } from '@zero-lash/contract/measuring';
import { compareLooks, gapInTenths } from '@zero-lash/core/measuring';
import { mmFromTenths } from '@zero-lash/core/length';
import { useLengths } from '../app/lengths.ts';

/** Two looks at one point by two people, held against each other. */
export function SecondLook({ reading }: { readonly reading: ReadingRow }) {
  const { interval, length } = useLengths();
  const first = reading.firstLook;
  if (!first) return null;
  const { agree, apart } = compareLooks(gapInTenths(first), gapInTenths(reading));
  return (
    <Box marginTop="2" borderLeft="4px solid" borderColor={agree ? 'ink' : 'tight'} paddingLeft="3">
      Second look by {reading.by}:{' '}
      <b>{agree ? 'the two agree' : `the two differ by ${length(mmFromTenths(apart))}`}</b>.{first.by} found{' '}
      {interval(first)}, {reading.by} {interval(reading)}.
      {!agree && ' Wipe the blades, and have a third look.'}
    </Box>
  );
}
