import { Button, Flex } from '@chakra-ui/react';
import type { TurningWork } from '../turning/useTurning.ts';
import { Note } from '../app/Note.tsx';

interface Props {
  readonly point: string;
  readonly work: TurningWork;
  /** the crank was turned without saying so; it stands at this angle */
  readonly onTurned: (angle: number) => void;
  readonly onKeep: () => void;
  readonly onChange: () => void;
}

/** Asks about a reading taken where its follower is not on the base circle, before it is kept. */
export function OffBaseQuestion({ point, work, onTurned, onKeep, onChange }: Props) {
  const { at } = work.turning;
  const right = work.progress.stops.find(({ stop }) => stop.points.includes(point));
  return (
    <Note role="alert" marginTop="2">
      At {at}° the follower of {point} is not on its base circle: what is read there is too small.
      <Flex gap="2" marginTop="2" flexWrap="wrap">
        {right && (
          <Button variant="solid" autoFocus onClick={() => onTurned(right.stop.angle)}>
            I have turned: it stands at stop {right.number}
          </Button>
        )}
        <Button onClick={onKeep}>Keep it, marked</Button>
        <Button variant="plain" onClick={onChange}>
          Change it
        </Button>
      </Flex>
    </Note>
  );
}
