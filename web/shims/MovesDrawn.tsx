import { Box, Flex } from '@chakra-ui/react';
import { disturbedBy } from '@zero-lash/core/builds';
import { tenthsFromMm } from '@zero-lash/core/length';
import { judge, limitsFromMm } from '@zero-lash/core/measuring';
import type { OrderedMove } from '@zero-lash/core/setting';
import { useMemo } from 'react';
import { useLengths } from '../app/lengths.ts';
import type { BuildView } from '../builds/buildView.ts';
import { HeadMap, type HeadPoint } from '../drawings/HeadMap.tsx';
import type { PiecePoint } from './planInput.ts';

interface Props {
  readonly build: BuildView;
  readonly points: readonly PiecePoint[];
  readonly moves: readonly OrderedMove[];
}

/** The moves of a plan over the head, in their order; where the cam is out, all at once as a tray to be filled. */
export function MovesDrawn({ build, points, moves }: Props) {
  const { figure } = useLengths(points[0]?.point.stamped);
  const { pattern } = build.sheet;
  const drawn = useMemo(
    () => moves.map(({ key, from }, index) => ({ key, from, number: index + 1 })),
    [moves],
  );
  const shown = useMemo(
    () =>
      Object.fromEntries(
        points.map(({ point, gap, installed, bare }): [string, HeadPoint] => [
          point.key,
          {
            state: bare ? 'bare' : gap ? verdictOf(gap, point) : 'not-measured',
            piece: installed === null || bare ? undefined : figure(installed),
          },
        ]),
      ),
    [points, figure],
  );
  const camOut = moves.some(({ key }) => disturbedBy(pattern, key).length > 1);
  const spoken = drawn
    .map(({ key, from, number }) => `${number}: ${from === null ? 'into' : `${from} to`} ${key}`)
    .join(', ');
  return (
    <Box marginY="2">
      <HeadMap
        pattern={pattern}
        points={shown}
        selected={null}
        label={`Moves over the head. ${spoken}`}
        moves={drawn}
      />
      {camOut && (
        <Flex gap="2" flexWrap="wrap" fontSize="sm" color="faded">
          With the cam out nothing has to wait loose: lay the pieces out as a tray, each by the point it goes
          to, and fit them in one go.
        </Flex>
      )}
    </Box>
  );
}

/** What a gap is against its limits. */
const verdictOf = (gap: { readonly lo: number; readonly hi: number }, limits: PiecePoint['point']) =>
  judge({ lo: tenthsFromMm(gap.lo), hi: tenthsFromMm(gap.hi) }, limitsFromMm(limits)).verdict;
