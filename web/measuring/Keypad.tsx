import { Box, Button } from '@chakra-ui/react';
import { CornerDownLeft, Delete } from 'lucide-react';

interface Props {
  readonly text: string;
  readonly onType: (text: string) => void;
  readonly onEnter: () => void;
}

const KEYS = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '.', '0'];

/** Large keys for a tablet on the bench, where a thumb is all that is clean. Hidden where there is a mouse. */
export function Keypad({ text, onType, onEnter }: Props) {
  return (
    <Box
      className="keypad"
      display="none"
      css={{ '@media (pointer: coarse)': { display: 'grid' } }}
      gridTemplateColumns="repeat(4, 1fr)"
      gap="1.5"
      marginTop="2"
    >
      {KEYS.map((key, index) => (
        <Button
          key={key}
          onClick={() => onType(text + key)}
          fontSize="lg"
          minHeight="46px"
          gridColumn={(index % 3) + 1}
          gridRow={Math.floor(index / 3) + 1}
        >
          {key}
        </Button>
      ))}
      <Button
        aria-label="and"
        onClick={() => onType(`${text.trimEnd()} `)}
        minHeight="46px"
        gridColumn="3"
        gridRow="4"
      >
        and
      </Button>
      <Button aria-label="Take back" onClick={() => onType(text.slice(0, -1))} gridColumn="4" gridRow="1">
        <Delete size={20} aria-hidden />
      </Button>
      <Button aria-label="more than" onClick={() => onType(`>${text}`)} gridColumn="4" gridRow="2">
        &gt;
      </Button>
      <Button aria-label="Keep reading" variant="solid" onClick={onEnter} gridColumn="4" gridRow="3 / 5">
        <CornerDownLeft size={22} aria-hidden />
      </Button>
    </Box>
  );
}
