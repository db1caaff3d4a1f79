import { Box, Button } from '@chakra-ui/react';
import { memo } from 'react';

interface Props {
  readonly blind: boolean;
  readonly onChoose: (blind: boolean) => void;
  /** something is measured already that a second person could look at again */
  readonly anything: boolean;
}

/** A second look by another person, who does not see the first one's results until theirs are in. */
export const BlindChoice = memo(function BlindChoice({ blind, onChoose, anything }: Props) {
  if (!anything && !blind) return null;
  return (
    <Box>
      <Button aria-pressed={blind} onClick={() => onChoose(!blind)}>
        {blind ? 'Show the first results' : 'Second look, blind'}
      </Button>
      {blind && (
        <Box fontSize="sm" color="faded" paddingTop="1">
          What others found is hidden. Measure any point again: the two are compared when yours is in.
        </Box>
      )}
    </Box>
  );
});
