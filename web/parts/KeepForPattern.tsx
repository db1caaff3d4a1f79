import { Box, Button, Flex } from '@chakra-ui/react';
import { correctionInWords } from '@zero-lash/core/parts';
import type { BuildView } from '../builds/buildView.ts';
import type { LedgerWork } from './useLedger.ts';

interface Props {
  readonly sheet: Pick<BuildView['sheet'], 'maker' | 'name'>;
  readonly work: LedgerWork;
}

/**
 * What was counted otherwise than listed, each with a tap that keeps it for every engine of the pattern: a part that is missing from this
 * one says nothing of the others. Nothing where all is as listed.
 */
export function KeepForPattern({ sheet, work }: Props) {
  const { corrections, enabled, keep } = work;
  if (!enabled || corrections.length === 0) return null;
  return (
    <Box as="section" aria-label="Otherwise than listed" background="raised" padding="3">
      <Box fontSize="sm">
        Otherwise than listed: what of it is so on every {sheet.maker} {sheet.name}?
      </Box>
      {corrections.map((correction) => {
        const words = correctionInWords(correction);
        return (
          <Flex key={correction.key} gap="3" alignItems="center" flexWrap="wrap" paddingTop="2">
            <Box flex="1" minWidth="180px">
              {words}
            </Box>
            <Button
              aria-label={`Keep ${words} for every ${sheet.maker} ${sheet.name}`}
              onClick={() => keep([correction])}
            >
              Keep for all of them
            </Button>
          </Flex>
        );
      })}
    </Box>
  );
}
