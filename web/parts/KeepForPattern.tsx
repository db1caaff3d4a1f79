import { Box, Button, Flex } from '@chakra-ui/react';
import { correctionInWords } from '@zero-lash/core/parts';
import type { BuildView } from '../builds/buildView.ts';
import type { LedgerWork } from './useLedger.ts';

interface Props {
  readonly sheet: Pick<BuildView['sheet'], 'maker' | 'name'>;
  readonly work: LedgerWork;
}

/** What was counted otherwise than listed, and the tap that keeps it for every engine of the pattern; nothing where all is as listed. */
export function KeepForPattern({ sheet, work }: Props) {
  const { corrections, enabled, keep } = work;
  if (!enabled || corrections.length === 0) return null;
  return (
    <Flex
      as="section"
      aria-label="Otherwise than listed"
      gap="3"
      alignItems="center"
      flexWrap="wrap"
      background="raised"
      padding="3"
    >
      <Box flex="1" minWidth="220px" fontSize="sm">
        Otherwise than listed: {corrections.map(correctionInWords).join(', ')}.
      </Box>
      <Button onClick={() => keep(corrections)}>
        Keep that for every {sheet.maker} {sheet.name}
      </Button>
    </Flex>
  );
}
