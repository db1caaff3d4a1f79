import type { BuildView } from '@zero-lash/contract/builds';
import type { Round } from '@zero-lash/contract/measuring';
import type { Turning } from '@zero-lash/contract/turning';
import { whyNoProof } from '@zero-lash/core/measuring';
import { inCycle, planStops, stopProgress, type StopProgress } from '@zero-lash/core/turning';
import { useEffect, useMemo, useState } from 'react';
import { problemFrom } from '../app/api.ts';
import { useAppDispatch, useAppSelector } from '../app/store.ts';
import { useStable } from '../app/useStable.ts';
import { useSetTurningMutation } from '../builds/endpoints.ts';
import { crankTurned, turningSent } from './turnings.ts';

/** Where the crank is in a round, what is left, and how to say that it was turned. */
export interface TurningWork {
  readonly progress: StopProgress;
  readonly turning: Turning;
  /** where the wheel is being looked at, which need not be where the crank stands */
  readonly angle: number;
  readonly look: (angle: number) => void;
  readonly standAt: (angle: number | null) => void;
  readonly choose: (school: Turning['school']) => void;
  readonly unreachable: readonly string[];
  /** why the server would not have it; not reaching the server is no reason, it is sent later */
  readonly error: unknown;
}

/** Degrees the server keeps an angle to. */
const KEPT_DEGREES = 0.001;

const sameAngle = (a: number | null, b: number | null) =>
  a === b || (a !== null && b !== null && Math.abs(a - b) <= KEPT_DEGREES);

function sameTurning(a: Turning, b: Turning): boolean {
  return (
    a.school === b.school &&
    sameAngle(a.at, b.at) &&
    a.done.length === b.done.length &&
    a.done.every((angle, index) => sameAngle(angle, b.done[index]!))
  );
}

const NOWHERE: Turning = { school: 'fewest', at: null, done: [] };

/** The turning of one round: taken at once on this device, and sent when the server is reached. */
export function useTurning(build: BuildView, round: Round | undefined): TurningWork {
  const { pattern } = build.sheet;
  const dispatch = useAppDispatch();
  const here = useAppSelector((state) => (round ? state.turnings[round.id] : undefined));
  const reached = useAppSelector((state) => state.outbox.reached);
  const turning = here ?? round?.turning ?? NOWHERE;
  const plan = useMemo(() => planStops(pattern, turning.school), [pattern, turning.school]);
  const measured = useMemo(
    () =>
      new Set(
        (round?.readings ?? [])
          .filter((reading) => whyNoProof(reading, null) === null)
          .map(({ point }) => point),
      ),
    [round?.readings],
  );
  const progress = useMemo(() => stopProgress(plan, turning, measured), [plan, turning, measured]);
  const [looked, setLooked] = useState<number | null>(null);
  const [send, { error }] = useSetTurningMutation();

  useEffect(() => {
    if (!here || !round || !reached) return;
    void send({ buildId: build.id, roundId: round.id, ...here }).then((result) => {
      // refused is an answer too: what the server has holds again, and why is shown
      if ('error' in result && problemFrom(result.error)?.code !== 'unreached')
        dispatch(turningSent({ roundId: round.id, turning: here }));
    });
  }, [here, reached]);

  useEffect(() => {
    if (here && round && sameTurning(here, round.turning))
      dispatch(turningSent({ roundId: round.id, turning: here }));
  }, [here, round?.turning]);

  const keep = (next: Partial<Turning>) => {
    setLooked(null);
    if (round) dispatch(crankTurned({ roundId: round.id, turning: { ...turning, ...next } }));
  };
  const standAt = useStable((angle: number | null) => {
    const left = progress.here;
    const done = left && angle !== null ? [...new Set([...turning.done, left.stop.angle])] : turning.done;
    keep({ at: angle === null ? null : inCycle(angle), done });
  });
  const choose = useStable((school: Turning['school']) => keep({ school, done: [] }));
  const angle = looked ?? turning.at ?? progress.next?.stop.angle ?? 0;
  const refused = error && problemFrom(error)?.code !== 'unreached' ? error : undefined;
  return useMemo(
    () => ({
      progress,
      turning,
      angle,
      look: setLooked,
      standAt,
      choose,
      unreachable: plan.unreachable,
      error: refused,
    }),
    [progress, turning, angle, plan, refused],
  );
}
