import { Box, Flex } from '@chakra-ui/react';
import { disturbedBy } from '@zero-lash/core/builds';
import { tenthsFromMm } from '@zero-lash/core/length';
import { judge } from '@zero-lash/core/measuring';
import type { OrderedMove, PiecePoint } from '@zero-lash/core/setting';
import { useMemo } from 'react';
import { useLengths } from '../app/lengths.ts';
import type { BuildView } from '../builds/buildView.ts';
import { HeadDrawing, type HeadPoint } from '../drawings/HeadDrawing.tsx';

interface Props {
  readonly build: BuildView;
  readonly points: readonly PiecePoint[];
  readonly moves: readonly OrderedMove[];
  /** mm, the piece that goes into a point */
  readonly into: ReadonlyMap<string, number>;
}

/** The moves of a plan over the head, in their order; where the cam is out, all at once as a tray to be filled. */
export function MovesDrawn({ build, points, moves, into }: Props) {
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
      <HeadDrawing
        pattern={pattern}
        points={shown}
        selected={null}
        label={`Moves over the head. ${spoken}`}
        moves={drawn}
      />
      {camOut && (
        <Box>
          <Box fontSize="sm" color="faded">
            With the cam out nothing has to wait loose: fill the tray, each piece by the point it goes to, and
            fit them in one go.
          </Box>
          <Flex as="ul" gap="2" flexWrap="wrap" marginTop="1" listStyleType="none" aria-label="Tray to fill">
            {moves.map(({ key }) => (
              <Box
                as="li"
                key={key}
                border="1px dashed"
                borderColor="ink"
                borderRadius="4px"
                paddingX="3"
                paddingY="1"
                textAlign="center"
              >
                <Box fontFamily="mono">{key}</Box>
                <Box fontWeight="650">{figure(into.get(key)!)}</Box>
              </Box>
            ))}
          </Flex>
        </Box>
      )}
    </Box>
  );
}

/** What a gap is against its limits. */
const verdictOf = (gap: { readonly lo: number; readonly hi: number }, { limits }: PiecePoint['point']) =>
  judge({ lo: tenthsFromMm(gap.lo), hi: tenthsFromMm(gap.hi), floor: true }, limits).verdict;
