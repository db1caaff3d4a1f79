import { Box } from '@chakra-ui/react';
import { lashPoints, type Pattern } from '@zero-lash/core/sheets';
import { firstSchool, planStops } from '@zero-lash/core/turning';
import { memo, useMemo, useState } from 'react';
import { HeadDrawing } from '../drawings/HeadDrawing.tsx';
import { Empty } from '../app/Page.tsx';
import { TurningBoard } from '../turning/TurningBoard.tsx';
import { layoutInWords } from './words.ts';

interface Props {
  readonly pattern: Pattern | null;
  /** what is typed now still makes this pattern */
  readonly holds: boolean;
  /** the firing order is typed: until then nothing is said of where to turn */
  readonly fires: boolean;
  readonly name: string;
}

/** What the form describes so far, drawn: the head, and the crank once it is known how it fires. */
export const PatternPreview = memo(function PatternPreview({ pattern, holds, fires, name }: Props) {
  const [angle, setAngle] = useState(0);
  const stops = useMemo(
    () =>
      pattern && fires
        ? planStops(pattern, firstSchool(pattern)).stops.map((stop) => ({
            ...stop,
            place: 'to-come' as const,
          }))
        : [],
    [pattern, fires],
  );
  if (!pattern)
    return <Empty>The head is drawn here once its cylinders hold, and the crank once they fire.</Empty>;
  const points = lashPoints(pattern);
  return (
    <Box as="section" aria-label="What the form describes">
      <Box fontSize="sm" color="faded" aria-live="polite">
        {layoutInWords(pattern)}, {points.length} lash points
        {fires && `, ${stops.length} ${stops.length === 1 ? 'stop reaches' : 'stops reach'} them`}
        {!holds && '. Drawn as it last held: something beside is not understood yet.'}
      </Box>
      <HeadDrawing
        pattern={pattern}
        points={Object.fromEntries(points.map(({ key }) => [key, { state: 'not-measured' }]))}
        selected={null}
        label={`Lash points of ${name || 'this pattern'}`}
      />
      {fires ? (
        <TurningBoard
          pattern={pattern}
          angle={angle}
          onTurn={setAngle}
          stops={stops}
          stacked
          of={name || 'this pattern'}
        />
      ) : (
        <Box fontSize="sm" color="faded">
          The crank is drawn once the firing order is typed.
        </Box>
      )}
    </Box>
  );
});
