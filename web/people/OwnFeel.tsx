import { Box } from '@chakra-ui/react';
import { useLengths } from '../app/lengths.ts';
import { PartHeading } from '../app/Page.tsx';
import { useFeelQuery } from '../shims/endpoints.ts';

/** A person's own spread of feel, and how the guard of a plan follows it. Nobody sees another's. */
export function OwnFeel() {
  const { data } = useFeelQuery(undefined, { refetchOnMountOrArgChange: true });
  const { length } = useLengths();
  if (!data) return null;
  const { count, sd, bias, guard } = data;
  const micro = (mm: number) => length(Math.round(mm * 1000) / 1000);
  return (
    <Box as="section" aria-label="Your feel">
      <PartHeading>Your feel</PartHeading>
      {count === 0 || sd === null || bias === null ? (
        <Box>
          You have looked at nothing a second time, blind, yet. Until ten such looks a plan keeps{' '}
          {micro(guard)} inside every band.
        </Box>
      ) : (
        <Box>
          From {count} second look{count === 1 ? '' : 's'}, blind: you feel the same gap again to ±{micro(sd)}
          {Math.abs(bias) >= 0.001 &&
            `, and ${micro(Math.abs(bias))} ${bias > 0 ? 'tighter' : 'wider'} than who looked first`}
          . A plan of yours keeps {micro(guard)} inside every band
          {count < 10 && ', until there are ten such looks'}.
        </Box>
      )}
    </Box>
  );
}
