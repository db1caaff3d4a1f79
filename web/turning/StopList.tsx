import { Box, Button } from '@chakra-ui/react';
import { type Pattern } from '@zero-lash/core/sheets';
import { pointsInWords, wayToStop, type PlannedStop } from '@zero-lash/core/turning';

interface Props {
  readonly pattern: Pattern;
  readonly stops: readonly { readonly stop: PlannedStop; readonly place: 'done' | 'here' | 'to-come' }[];
  readonly unreachable: readonly string[];
  readonly onLook: (angle: number) => void;
}

const PLACE_WORDS = { done: 'done', here: 'the crank stands here', 'to-come': '' } as const;

/** The plan: every stop in turning order, how to get to it, and what is done there. */
export function StopList({ pattern, stops, unreachable, onLook }: Props) {
  return (
    <Box>
      <Box as="ol" aria-label="Stops in turning order">
        {stops.map(({ stop, place }, index) => (
          <Box
            as="li"
            key={stop.angle}
            borderBottom="1px solid"
            borderColor="hairline"
            background={place === 'here' ? 'wash' : undefined}
          >
            <Button
              variant="plain"
              display="block"
              width="100%"
              textAlign="left"
              textDecoration="none"
              fontWeight="400"
              whiteSpace="normal"
              paddingX="1"
              paddingY="2"
              onClick={() => onLook(stop.angle)}
              aria-current={place === 'here' ? 'step' : undefined}
            >
              <b>{index + 1}</b> {wayToStop(pattern, stop, index === 0 ? null : stops[index - 1]!.stop.angle)}
              : <b>{pointsInWords(pattern, stop.points, ' ')}</b>
              {PLACE_WORDS[place] && (
                <Box as="span" color="faded">
                  {' '}
                  · {PLACE_WORDS[place]}
                </Box>
              )}
            </Button>
          </Box>
        ))}
      </Box>
      {unreachable.length > 0 && (
        <Box color="tight" paddingY="2">
          Not reached this way: {pointsInWords(pattern, unreachable)}. Choose another way to turn.
        </Box>
      )}
    </Box>
  );
}
