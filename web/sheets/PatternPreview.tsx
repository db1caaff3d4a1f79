import { Box } from '@chakra-ui/react';
import { lashPoints, type Pattern } from '@zero-lash/core/sheets';
import { planStops } from '@zero-lash/core/turning';
import { useMemo, useState } from 'react';
import { CrankWheel } from '../drawings/CrankWheel.tsx';
import { HeadMap } from '../drawings/HeadMap.tsx';
import { Empty } from '../app/Page.tsx';
import { layoutInWords } from './words.ts';

interface Props {
  readonly pattern: Pattern | null;
  /** what is typed now still makes this pattern */
  readonly holds: boolean;
  readonly name: string;
}

/** What the form describes so far, drawn: the head and the crank wheel. */
export function PatternPreview({ pattern, holds, name }: Props) {
  const [angle, setAngle] = useState(0);
  const stops = useMemo(
    () =>
      pattern
        ? planStops(pattern, 'fewest').stops.map((stop) => ({
            angle: stop.angle,
            place: 'to-come' as const,
          }))
        : [],
    [pattern],
  );
  if (!pattern)
    return (
      <Empty>The head map and the crank wheel are drawn here once cylinders, firing and timing hold.</Empty>
    );
  const points = lashPoints(pattern);
  return (
    <Box as="section" aria-label="What the form describes">
      <Box fontSize="sm" color="faded" aria-live="polite">
        {layoutInWords(pattern)}, {points.length} lash points, {stops.length}{' '}
        {stops.length === 1 ? 'stop' : 'stops'} of the marks reach them
        {!holds && '. Drawn as it last held: something beside is not understood yet.'}
      </Box>
      <HeadMap
        pattern={pattern}
        points={Object.fromEntries(points.map(({ key }) => [key, { state: 'not-measured' }]))}
        selected={null}
        label={`Lash points of ${name || 'this pattern'}`}
      />
      <CrankWheel
        pattern={pattern}
        angle={angle}
        onTurn={setAngle}
        stops={stops}
        label={`Crank wheel of ${name || 'this pattern'}`}
      />
    </Box>
  );
}
