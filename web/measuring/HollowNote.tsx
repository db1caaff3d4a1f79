import { Box } from '@chakra-ui/react';
import { Note } from '../app/Note.tsx';
import { Tick } from '../app/Tick.tsx';

interface Props {
  /** the blade in the hand is narrower than the hollow */
  readonly narrow: boolean;
  /** the gap is set by a screw or a nut */
  readonly screw: boolean;
  /** no blade entered */
  readonly none: boolean;
  readonly onNarrow: (narrow: boolean) => void;
}

/** What a hollow makes of flat blades, and what can be done: nothing is passed by them here. */
export function HollowNote({ narrow, screw, none, onNarrow }: Props) {
  return (
    <Note tone="tight" padding="2" fontSize="sm">
      <Box>
        A hollow is worn in here: a flat blade bridges it. “Won’t” proves nothing, and no point is passed by
        flat blades; one that goes still shows that it is loose.
      </Box>
      <Box marginTop="1">
        Reface or renew the part, or measure by an indicator at the gap
        {screw && ', run the screw to touch and back it off by angle,'} or use a blade narrower than the
        hollow.
      </Box>
      {none && !narrow && <Box fontWeight="650">No blade goes in: treat it as tight.</Box>}
      <Tick
        label="This blade is narrower than the hollow"
        checked={narrow}
        onChange={({ target }) => onNarrow(target.checked)}
      />
    </Note>
  );
}
