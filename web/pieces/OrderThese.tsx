import { Box, Button, Flex } from '@chakra-ui/react';
import { tenthsFromMm } from '@zero-lash/core/length';
import type { PiecePoint } from '@zero-lash/core/setting';
import { Link } from 'react-router';
import { ProblemNote } from '../app/ProblemNote.tsx';
import type { BuildView } from '../builds/buildView.ts';
import { useDrawerOrdersQuery, useOrderPiecesMutation } from './endpoints.ts';
import type { Plans } from './plans.ts';

interface Props {
  readonly build: BuildView;
  readonly points: readonly PiecePoint[];
  readonly plans: Plans;
  readonly enabled: boolean;
}

/** Orders what a plan wants bought, once: what is on order for this build already is not ordered again. */
export function OrderThese({ build, points, plans, enabled }: Props) {
  const { data: orders } = useDrawerOrdersQuery(undefined, { refetchOnMountOrArgChange: true });
  const [order, { error, isLoading }] = useOrderPiecesMutation();
  const waited = (orders ?? []).filter(({ open, buildId }) => open && buildId === build.id);
  const systemOf = new Map(points.map(({ point, system }) => [point.key, system]));
  const bought = plans.plan.assignments.filter(({ source }) => source === 'order');
  const wanted = new Map<string, Map<number, number>>();
  for (const { key, thickness } of bought) {
    const sizes = wanted.get(systemOf.get(key)!) ?? new Map<number, number>();
    const size = tenthsFromMm(thickness!);
    sizes.set(size, (sizes.get(size) ?? 0) + 1);
    wanted.set(systemOf.get(key)!, sizes);
  }
  for (const { system, lines } of waited)
    for (const { thickness, count, came } of lines) {
      const size = tenthsFromMm(thickness);
      const left = (wanted.get(system)?.get(size) ?? 0) - (count - came);
      if (left > 0) wanted.get(system)?.set(size, left);
      else wanted.get(system)?.delete(size);
    }
  const left = [...wanted].filter(([, sizes]) => sizes.size > 0);

  async function send() {
    for (const [system, sizes] of left)
      await order({
        ...{ system, buildId: build.id, note: '' },
        lines: [...sizes].map(([size, count]) => ({ thickness: size / 10_000, count })),
      });
  }

  return (
    <>
      <Flex gap="2" alignItems="center" marginTop="1" flexWrap="wrap">
        {left.length > 0 ? (
          <Button loading={isLoading} disabled={!enabled || !orders} onClick={() => void send()}>
            Order these
          </Button>
        ) : (
          <b>They are on order.</b>
        )}
        <Box fontSize="sm">
          What came is written into <Link to="/drawer">the drawer</Link>: the plan then takes it from there.
        </Box>
      </Flex>
      <ProblemNote error={error} />
    </>
  );
}
