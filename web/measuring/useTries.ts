import type { BenchTools } from './useBench.ts';
import {
  goNoGo,
  intervalOf,
  isDecided,
  judge,
  limitsFromMm,
  narrowingBlade,
  nextBlade,
  withoutContradicted,
  type GoNoGo,
  type HeldBlades,
  type Interval,
  type Try,
  type Verdict,
} from '@zero-lash/core/measuring';
import { mmFromTenths } from '@zero-lash/core/length';
import { useMemo, useState } from 'react';
import { useAppDispatch, useAppSelector } from '../app/store.ts';
import { draftKey } from './drafts.ts';
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

/** Keeps the tries at a point, on the device from the first one on. */
export function useTries(
  roundId: string,
  point: { readonly key: string; readonly min: number; readonly max: number },
  bench: BenchTools,
  toSetBy: boolean,
): TriesWork {
  const dispatch = useAppDispatch();
  const place = draftKey(roundId, point.key);
  const tries = useAppSelector((state) => state.tries[place] ?? NO_TRIES);
  const [pick, setPick] = useState<{ readonly place: string; readonly blades: readonly number[] | null }>();
  // what is held belongs to the point it was taken up for
  const picked = pick?.place === place ? pick.blades : null;
  const setPicked = (next: readonly number[] | null) => setPick({ place, blades: next });
  const { blades, maxStack, repeatability } = bench;
  const spec = { min: point.min, max: point.max };
  const standing = useMemo(
    () => standingOf(tries, spec, { blades, maxStack, repeatability }, toSetBy),
    [tries, point.min, point.max, blades, maxStack, repeatability, toSetBy],
  );
  const pair = useMemo(() => goNoGo({ blades, maxStack, spec }), [blades, maxStack, point.min, point.max]);
  return {
    ...standing,
    tries,
    pair,
    held: picked ?? standing.suggested?.blades ?? [],
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
    comeTo: (next) => standingOf(next, spec, { blades, maxStack, repeatability }, toSetBy),
    clearOlder: () => withoutContradicted(tries, repeatability),
  };
}

function standingOf(
  tries: readonly Try[],
  spec: { readonly min: number; readonly max: number },
  { blades, maxStack, repeatability }: Pick<BenchTools, 'blades' | 'maxStack' | 'repeatability'>,
  toSetBy: boolean,
): Pick<TriesWork, 'interval' | 'verdict' | 'suggested' | 'narrowing'> {
  const interval = intervalOf({ kind: 'tries', tries, repeatability });
  const { verdict } = judge(interval, limitsFromMm(spec));
  const known = {
    lo: mmFromTenths(interval.lo),
    hi: interval.hi === null ? null : mmFromTenths(interval.hi),
  };
  const owned = { blades, maxStack };
  const out = toSetBy && isDecided(verdict) && verdict !== 'in-spec';
  const narrower = out ? narrowingBlade({ ...owned, ...known }) : null;
  return {
    interval,
    verdict,
    suggested: out ? narrower : nextBlade({ ...owned, ...known, spec }).test,
    narrowing: narrower !== null,
  };
}
