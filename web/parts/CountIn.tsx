import { counted } from '@zero-lash/core/length';
import { Box, Button, Flex, Heading } from '@chakra-ui/react';
import { imbalances } from '@zero-lash/core/parts';
import { Note } from '../app/Note.tsx';
import type { BuildView } from '../builds/buildView.ts';
import { ExplainLedger } from './ExplainLedger.tsx';
import { LedgerTable } from './CountOut.tsx';
import { useLedger } from './useLedger.ts';

/** The count-in: everything that was counted out is back, or is named. */
export function CountIn({ build }: { readonly build: BuildView }) {
  const work = useLedger(build);
  const out = work.ledger.filter((line) => line.out !== null);
  const left = out.filter((line) => line.in === null);
  const off = imbalances(work.ledger).filter(({ line }) => line.in !== null);
  if (out.length === 0) return null;
  return (
    <Box as="section" aria-label="Parts back" display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="2">
      <Flex alignItems="center" gap="3" flexWrap="wrap">
        <Box flex="1">
          <Heading as="h3" fontSize="lg" fontWeight="650">
            Parts back
          </Heading>
          <Box fontSize="sm" color="faded">
            {left.length === 0
              ? `Everything is back: ${counted(out.length, 'line')}.`
              : `${left.length} of ${counted(out.length, 'line')} not back yet.`}
          </Box>
        </Box>
        {work.enabled && left.length > 0 && (
          <Button
            onClick={() =>
              work.write(
                'Parts back',
                left.map((line) => ({ ...line, in: line.out })),
              )
            }
          >
            The rest is all there
          </Button>
        )}
      </Flex>
      {off.length > 0 && (
        <Note tone="tight" role="alert">
          It does not balance:{' '}
          {off
            .map(
              ({ line, off: by }) =>
                `${[line.name, line.place].filter(Boolean).join(' ')}: ${by < 0 ? `${-by} missing` : `${by} left over`}`,
            )
            .join('; ')}
          . Look for it before anything is closed or turned.
        </Note>
      )}
      <ExplainLedger build={build} />
      <Box as="details">
        <Box as="summary" minHeight="44px" paddingY="2" cursor="pointer">
          Line by line
        </Box>
        <LedgerTable lines={out} work={work} side="in" />
      </Box>
    </Box>
  );
}
