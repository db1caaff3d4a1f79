import { intervalOf, type LimitedPoint, type Reading } from '@zero-lash/core/measuring';
import { mmFromTenths } from '@zero-lash/core/length';
import { setAtItsStop } from '@zero-lash/core/builds';
import { collectedPoints, feelSpread, isCollected, piecePoints } from '@zero-lash/core/setting';
import { useMemo } from 'react';
import { useStable } from '../app/useStable.ts';
import type { BuildView } from '../builds/buildView.ts';
import { useDrawerQuery, useFeelQuery } from '../pieces/endpoints.ts';

const NONE: ReadonlySet<string> = new Set();
/** How far inside the band a piece is chosen where nothing is known of anybody's feel. */
const USUAL_GUARD = feelSpread({ looks: [] }).guard;

/** What is done with a piece where gaps are found and set in one lap. */
export interface Collected {
  /** points whose pieces are planned at the end of the lap */
  readonly points: ReadonlySet<string>;
  /** whether a point that is out, and reads so, is set where the crank stands, before another comes */
  readonly staysFor: (point: Pick<LimitedPoint, 'key' | 'role'>, reading: Reading) => boolean;
}

/**
 * Which pieces of a lap are collected, to be planned together at its end.
 *
 * @param inLap gaps are found and set in one lap here
 */
export function useCollected(build: BuildView, inLap: boolean): Collected {
  const points = useMemo(
    () => (inLap ? piecePoints(build) : []),
    [inLap, build.sheet, build.settings, build.wear, build.rounds, build.aim, build.ownAims],
  );
  const skip = points.length === 0;
  const { data: drawer = null } = useDrawerQuery(undefined, { skip });
  const guard = useFeelQuery(undefined, { skip }).data?.guard ?? USUAL_GUARD;
  const collected = useMemo(
    () => (skip ? NONE : collectedPoints(build, { drawer, guard })),
    [skip, points, drawer, guard],
  );
  const staysFor = useStable(({ key, role }: Pick<LimitedPoint, 'key' | 'role'>, reading: Reading) => {
    const piece = points.find(({ point }) => point.key === key);
    if (!piece) return setAtItsStop(build.sheet.pattern, role);
    const { lo, hi } = intervalOf(reading);
    const gap = hi === null ? null : { lo: mmFromTenths(lo), hi: mmFromTenths(hi) };
    return !isCollected(build, { ...piece, gap }, { drawer, guard });
  });
  return useMemo(() => ({ points: collected, staysFor }), [collected, staysFor]);
}
