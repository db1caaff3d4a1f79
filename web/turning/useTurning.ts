import type { BuildView } from '../builds/buildView.ts';
import type { Round } from '@zero-lash/contract/measuring';
import { bareHeld as bareHeldNow, toolsIn } from '@zero-lash/core/builds';
import type { Turning } from '@zero-lash/contract/turning';
import {
  firstSchool,
  inCycle,
  planStops,
  stopProgress,
  type PositionSchool,
  type StopProgress,
} from '@zero-lash/core/turning';
import { useMemo, useState } from 'react';
import { useShared } from '../app/useShared.ts';
import { useStable } from '../app/useStable.ts';
import { useBenchWrite } from '../builds/useBenchWrite.ts';

/** Where the crank is in a round, what is left, and how to say that it was turned. */
export interface TurningWork {
  readonly progress: StopProgress;
  readonly turning: Turning;
  /** where the wheel is being looked at, which need not be where the crank stands */
  readonly angle: number;
  readonly look: (angle: number) => void;
  readonly standAt: (angle: number | null) => void;
  /** by which it is turned: as was chosen, or as the sheet begins */
  readonly school: PositionSchool;
  readonly choose: (school: PositionSchool) => void;
  readonly unreachable: readonly string[];
  /** points at which a tool holds the valve down: until it is out nothing is turned */
  readonly heldDown: readonly string[];
  /** points with nothing in for which the crank is held */
  readonly bareHeld: readonly string[];
}

/** The stop the crank is being turned to; null where it stands at one that has points left, none is left, or it may not turn. */
export function arrivingAt({
  progress: { here, next },
  heldDown,
  bareHeld,
}: Pick<TurningWork, 'progress' | 'heldDown' | 'bareHeld'>) {
  if (heldDown.length + bareHeld.length > 0) return null;
  return here && here.left.length > 0 ? null : next;
}

/** The way the crank was last turned in a build: what was chosen once is not chosen again at every stage. */
const schoolBefore = ({ rounds }: BuildView): PositionSchool | null =>
  rounds.findLast(({ turning }) => turning.school !== null)?.turning.school ?? null;

const NOWHERE: Turning = { school: null, at: null, done: [] };

/**
 * The turning of one round, with what is pending in it.
 *
 * @param settled points at which nothing is left to be done in this round
 */
export function useTurning(
  build: BuildView,
  round: Round | undefined,
  settled: ReadonlySet<string>,
): TurningWork {
  const { pattern } = build.sheet;
  const put = useBenchWrite(build.id);
  const turning = useShared(round?.turning ?? NOWHERE);
  const school = turning.school ?? schoolBefore(build) ?? firstSchool(pattern);
  const plan = useMemo(() => planStops(pattern, school), [pattern, school]);
  const progress = useShared(useMemo(() => stopProgress(plan, turning, settled), [plan, turning, settled]));
  const [looked, setLooked] = useState<number | null>(null);

  const keep = (next: Partial<Turning>) => {
    setLooked(null);
    if (round) put({ kind: 'turning', roundId: round.id, body: { ...turning, ...next } });
  };
  const heldDown = useShared(useMemo(() => toolsIn(build.ticks), [build.ticks]));
  const bareHeld = useShared(useMemo(() => bareHeldNow(build), [build.ticks, build.settings, build.sheet]));
  const standAt = useStable((angle: number | null) => {
    if (heldDown.length + bareHeld.length > 0 && angle !== null) return;
    const left = progress.here;
    const done = left && angle !== null ? [...new Set([...turning.done, left.stop.angle])] : turning.done;
    keep({ at: angle === null ? null : inCycle(angle), done });
  });
  const choose = useStable((chosen: PositionSchool) =>
    keep({
      ...{ school: chosen, done: [] },
      // no crank is turned, and so it stands nowhere
      ...(chosen === 'cam-by-hand' ? { at: null } : {}),
    }),
  );
  const angle = looked ?? turning.at ?? progress.next?.stop.angle ?? 0;
  return useMemo(
    () => ({
      progress,
      turning,
      angle,
      look: setLooked,
      standAt,
      school,
      choose,
      unreachable: plan.unreachable,
      heldDown,
      bareHeld,
    }),
    [progress, turning, angle, plan, school, heldDown, bareHeld],
  );
}
