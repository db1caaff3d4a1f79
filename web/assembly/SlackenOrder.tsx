import { Box, Heading } from '@chakra-ui/react';
import { boltPlaces, tightenOrder } from '@zero-lash/core/assembly';
import type { Bank } from '@zero-lash/core/sheets';
import { useMemo } from 'react';
import type { BuildView } from '../builds/buildView.ts';
import { BoltDrawing } from '../drawings/BoltDrawing.tsx';

/** In which order the head's bolts are slackened: as the sheet says, or worked out from where bolts stand on most heads. */
export function SlackenOrder({ build }: { readonly build: BuildView }) {
  const { pattern, torques } = build.sheet;
  const heads = useMemo(() => {
    const banks = [...new Set(pattern.cylinders.map(({ bank }) => bank))].sort() as Bank[];
    return banks.map((bank) => {
      const bolts = boltPlaces(pattern, bank);
      return { bank, bolts, order: tightenOrder({ bolts }).slacken };
    });
  }, [pattern]);
  const said = torques.filter(({ order }) => order !== '');
  return (
    <Box as="details" borderTop="1px solid" borderColor="hairline">
      <Box as="summary" minHeight="44px" paddingY="2" cursor="pointer">
        <b>In which order to slacken</b>
      </Box>
      {said.length > 0 && (
        <Box paddingBottom="2">
          <Heading as="h4" fontSize="md" fontWeight="650">
            The sheet says
          </Heading>
          {said.map(({ fastening, order }) => (
            <Box key={fastening}>
              {fastening}, tightened {order}: slackened the other way round, in part turns.
            </Box>
          ))}
        </Box>
      )}
      <Box color="faded" fontSize="sm">
        Worked out for a head with bolts at the corners of every bore: from the ends inward, crosswise, a
        quarter turn at a time. Where the maker’s manual gives an order, or the head is another, the manual
        governs. Cam caps: all of them evenly, half a turn at a time, until no spring presses any more.
      </Box>
      {heads.map(({ bank, bolts, order }) => (
        <BoltDrawing
          key={bank}
          bolts={bolts}
          order={order}
          label={heads.length > 1 ? `Head of bank ${bank}` : 'Head'}
        />
      ))}
    </Box>
  );
}
