import { Box, Button, Flex } from '@chakra-ui/react';
import { cylinderName, type Pattern } from '@zero-lash/core/sheets';
import {
  CYCLE,
  inCycle,
  whichTdc,
  type CylinderSign,
  type PlannedStop,
  type TdcAnswer,
} from '@zero-lash/core/turning';
import { useState } from 'react';
import { Labelled, Select } from '../app/Labelled.tsx';
import { Note } from '../app/Note.tsx';

const SIGNS: readonly (readonly [CylinderSign, string])[] = [
  ['both-loose', 'both sides loose'],
  ['rocking', 'valves rocking'],
  ['intake-open', 'an intake pressed open'],
  ['exhaust-open', 'an exhaust pressed open'],
];

interface Props {
  readonly pattern: Pattern;
  /** the stop that is meant */
  readonly stop: PlannedStop;
  readonly onStand: (angle: number) => void;
}

/** A mark comes round twice: what is felt at one or two cylinders says which of the two turns this is. */
export function WhichTdc({ pattern, stop, onStand }: Props) {
  const names = pattern.cylinders.map(({ id }) => id);
  const likely = [stop.fires[0] ?? stop.rocks[0] ?? names[0]!, stop.rocks[0] ?? names.at(-1)!];
  const [asked, setAsked] = useState<readonly string[]>([...new Set(likely)].slice(0, 2));
  const [seen, setSeen] = useState<Readonly<Record<string, CylinderSign>>>({});
  const told = Object.fromEntries(Object.entries(seen).filter(([cylinder]) => asked.includes(cylinder)));
  const answer = Object.keys(told).length > 0 ? whichTdc(pattern, stop.angle, told) : null;
  const other = inCycle(stop.angle + CYCLE / 2);
  return (
    <Note marginTop="2">
      <Box>
        With the mark at its pointer, move the crank a few degrees both ways. What do you feel or see?
      </Box>
      <Box display="grid" gap="3" marginTop="2">
        {asked.map((cylinder, index) => (
          <Flex key={index} gap="2" alignItems="flex-end" flexWrap="wrap">
            <Box width="110px">
              <Labelled label="Cylinder">
                <Select
                  value={cylinder}
                  onChange={(event) =>
                    setAsked(asked.map((name, place) => (place === index ? event.target.value : name)))
                  }
                >
                  {names.map((name) => (
                    <option key={name} value={name}>
                      {cylinderName(pattern, name)}
                    </option>
                  ))}
                </Select>
              </Labelled>
            </Box>
            <Flex
              role="group"
              aria-label={`What cylinder ${cylinderName(pattern, cylinder)} shows`}
              gap="1.5"
              flexWrap="wrap"
            >
              {SIGNS.map(([sign, words]) => (
                <Button
                  key={sign}
                  aria-pressed={seen[cylinder] === sign}
                  variant={seen[cylinder] === sign ? 'solid' : 'outline'}
                  onClick={() => setSeen({ ...seen, [cylinder]: sign })}
                >
                  {words}
                </Button>
              ))}
            </Flex>
          </Flex>
        ))}
      </Box>
      {answer && (
        <Box marginTop="3" role="status">
          <b>{VERDICTS[answer]}</b>{' '}
          {answer === 'this' && (
            <Button onClick={() => onStand(stop.angle)}>The crank stands at this stop</Button>
          )}
          {answer === 'one-turn-on' && (
            <Button onClick={() => onStand(other)}>
              Write down that it stands at {other % 360}°, the other turn
            </Button>
          )}
        </Box>
      )}
    </Note>
  );
}

const VERDICTS: Readonly<Record<TdcAnswer, string>> = {
  this: 'This is the stop that is meant.',
  'one-turn-on': 'You are one full turn out: turn the crank a whole turn on and look again.',
  either: 'That fits both turns: say what another cylinder shows.',
  neither: 'It can be neither of the two: the mark is not at its pointer, or not that mark. Look again.',
};
