import { Box } from '@chakra-ui/react';
import type { Pattern } from '@zero-lash/core/sheets';
import { pointsInWords, tableDifferences } from '@zero-lash/core/turning';
import { Caution } from '../app/Caution.tsx';

/** Where a maker's own table and the geometry of its cams do not say the same; nothing where there is no table, or they agree. */
export function TableDifferences({ pattern }: { readonly pattern: Pattern }) {
  const { differences, missing } = tableDifferences(pattern);
  if (differences.length + missing.length === 0) return null;
  return (
    <Box>
      {differences.map(({ angle, open }) => (
        <Caution key={angle}>
          At {Math.round(angle * 10) / 10}° the maker’s table has {pointsInWords(pattern, open)} measured; by
          the valve timing they are off their base circle there. The table governs: look at the lobe, and at
          both figures, before you believe either.
        </Caution>
      ))}
      {missing.length > 0 && <Caution>Not in the maker’s table: {pointsInWords(pattern, missing)}.</Caution>}
    </Box>
  );
}
