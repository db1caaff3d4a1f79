import { LOCKING_WORDS } from '@zero-lash/core/sheets';
import { Box } from '@chakra-ui/react';
import { useLengths } from '../app/lengths.ts';
import { PartHeading } from '../app/Page.tsx';
import { useFeel } from '../pieces/useFeel.ts';

/** A person's own spread of feel, and how the guard of a plan follows it. Nobody sees another's. */
export function OwnFeel() {
  const data = useFeel();
  const { length } = useLengths();
  if (!data) return null;
  const { count, sd, bias, guard } = data;
  const micro = (mm: number) => length(Math.round(mm * 1000) / 1000);
  return (
    <Box as="section" aria-label="Your feel">
      <PartHeading>Your feel</PartHeading>
      {count === 0 || sd === null || bias === null ? (
        <Box>
          You have measured nothing a second time, blind, yet. Until there are ten such readings a plan keeps{' '}
          {micro(guard)} inside every band.
        </Box>
      ) : (
        <Box>
          From {count} blind second reading{count === 1 ? '' : 's'}: you repeat a gap to ±{micro(sd)}
          {Math.abs(bias) >= 0.001 &&
            `, and ${micro(Math.abs(bias))} ${bias > 0 ? 'tighter' : 'wider'} than whoever read it first`}
          . A plan of yours keeps {micro(guard)} inside every band
          {count < 10 && ', until there are ten such readings'}.
        </Box>
      )}
      {data.locks.map(({ means, adjuster, pitch, locking, count: pairs, mean, sd: spread, use }) => (
        <Box key={adjuster}>
          When you lock a {means === 'screw' ? 'screw' : 'pivot nut'} ({pitch} mm a turn,{' '}
          {LOCKING_WORDS[locking]}) its gap {(mean ?? 0) < 0 ? 'closes' : 'opens'} by{' '}
          {micro(Math.abs(mean ?? 0))}
          {spread !== null && ` ± ${micro(spread)}`}, from {pairs} pair{pairs === 1 ? '' : 's'}
          {use === 0 ? ': not allowed for yet' : ': that much is allowed for before it is locked'}.
        </Box>
      ))}
    </Box>
  );
}
