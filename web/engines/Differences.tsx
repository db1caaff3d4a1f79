import { Box } from '@chakra-ui/react';
import type { RecordDifference } from '@zero-lash/contract/recordColumns';
import { Fold } from '../app/Fold.tsx';

/** Where a record says something else than what follows from its rows. */
export function Differences({ found }: { readonly found: readonly RecordDifference[] }) {
  if (found.length === 0) return null;
  return (
    <Box marginTop="2">
      <Fold
        title={`${found.length === 1 ? 'In one place the file says' : `In ${found.length} places the file says`} something else than what follows from its figures. Its word is kept beside them, and what follows is gone by.`}
        ruled="none"
      >
        <ul>
          {found.map(({ path, file, here }) => (
            <li key={`${path} ${here}`}>
              <Box as="span" fontFamily="mono">
                {path.replace('tables.', '')}
              </Box>
              : the file says {file}
              {here && `; here: ${here}`}
            </li>
          ))}
        </ul>
      </Fold>
    </Box>
  );
}
