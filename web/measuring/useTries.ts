import type { BenchTools } from '../instruments/useBench.ts';
import {
  goNoGo,
  intervalOf,
  isDecided,
  judge,
  NARROW_ENOUGH_MM,
  narrowingBlade,
  nextBlade,
  withoutContradicted,
  type GoNoGo,
  type HeldBlades,
  type Interval,
  type MeasuredPoint,
  type Try,
  type Verdict,
} from '@zero-lash/core/measuring';
import { mmFromTenths } from '@zero-lash/core/length';
import { useMemo, useState } from 'react';
import { useAppDispatch, useAppSelector } from '../app/store.ts';
import { draftKey } from '../app/drafts.ts';
import { triesMade } from './tries.ts';

const NO_TRIES: readonly Try[] = [];

/** What tries come to, and whether a blade narrows it further for setting. */
export interface ComeTo {
  readonly interval: Interval;
  readonly verdict: Verdict;
  readonly narrowing: boolean;
}

/** The tries at one point: what they prove so far, and what to try next. */
export interface TriesWork {
  readonly tries: readonly Try[];
  readonly interval: Interval;
  readonly verdict: Verdict;
  /** the blade or stack that settles it; narrows it, where it is out and is to be set by */
  readonly suggested: HeldBlades | null;
  readonly narrowing: boolean;
  /** the two blades that prove the whole band, where the bench has them */
  readonly pair: GoNoGo | null;
  /** mm, in the hand now */
  readonly held: readonly number[];
  readonly tap: (blade: number) => void;
  readonly hold: (blades: readonly number[] | null) => void;
  readonly put: (tries: readonly Try[]) => void;
  readonly comeTo: (tries: readonly Try[]) => ComeTo;
  readonly clearOlder: () => readonly Try[];
}

/** What tries are made for, and over. */
export interface TriesFor {
  /** a piece is chosen by the figure; at a screw, out is out, and is set */
  readonly narrows: boolean;
  /** a hollow is worn in that these blades bridge */
  readonly hollow: boolean;
}

/** Keeps the tries at a point, on the device from the first one on. */
export function useTries(
  roundId: string,
  point: Pick<MeasuredPoint, 'key' | 'limits' | 'spec'>,
  bench: BenchTools,
  { narrows, hollow }: TriesFor,
): TriesWork {
  const dispatch = useAppDispatch();
  const place = draftKey(roundId, point.key);
  const tries = useAppSelector((state) => state.tries[place] ?? NO_TRIES);
  const [pick, setPick] = useState<{ readonly place: string; readonly blades: readonly number[] | null }>();
  // what is held belongs to the point it was taken up for
  const picked = pick?.place === place ? pick.blades : null;
  const setPicked = (next: readonly number[] | null) => setPick({ place, blades: next });
  const { blades, maxStack, repeatability } = bench;
  const { limits, spec } = point;
  const evaluated = useMemo(
    () => statusOf(tries, { limits, spec }, { blades, maxStack, repeatability }, { narrows, hollow }),
    [tries, limits, spec, blades, maxStack, repeatability, narrows, hollow],
  );
  const pair = useMemo(() => (spec ? goNoGo({ blades, maxStack, spec }) : null), [blades, maxStack, spec]);
  return {
    ...evaluated,
    tries,
    pair,
    held: picked ?? evaluated.suggested?.blades ?? [],
    hold: setPicked,
    tap: (blade) => {
      if (picked?.includes(blade))
        setPicked(picked.length > 1 ? picked.filter((other) => other !== blade) : null);
      else setPicked(picked && picked.length < maxStack ? [...picked, blade].sort((a, b) => a - b) : [blade]);
    },
    put: (next) => {
      setPicked(null);
      if (next.length > 0 || tries.length > 0) dispatch(triesMade({ place, tries: next }));
    },
    comeTo: (next) =>
      statusOf(next, { limits, spec }, { blades, maxStack, repeatability }, { narrows, hollow }),
    clearOlder: () => withoutContradicted(tries, repeatability),
  };
}

function statusOf(
  tries: readonly Try[],
  { limits, spec }: Pick<MeasuredPoint, 'limits' | 'spec'>,
  { blades, maxStack, repeatability }: Pick<BenchTools, 'blades' | 'maxStack' | 'repeatability'>,
  { narrows, hollow }: TriesFor,
): Pick<TriesWork, 'interval' | 'verdict' | 'suggested' | 'narrowing'> {
  const interval = intervalOf({ kind: 'tries', tries, repeatability }, hollow);
  const { verdict } = judge(interval, limits);
  const known = {
    lo: mmFromTenths(interval.lo),
    hi: interval.hi === null ? null : mmFromTenths(interval.hi),
    floor: interval.floor,
  };
  const owned = { blades, maxStack };
  const out = narrows && isDecided(verdict) && verdict !== 'in-spec';
  const narrower =
    out && spec ? narrowingBlade({ ...owned, ...known, spec, enough: NARROW_ENOUGH_MM }) : null;
  return {
    interval,
    verdict,
    suggested: out ? narrower : nextBlade({ ...owned, ...known, spec }).test,
    narrowing: narrower !== null,
  };
}
