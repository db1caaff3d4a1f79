import { lastChange } from '@zero-lash/core/builds';
import type { PiecePoint } from '@zero-lash/core/setting';
import { useState } from 'react';
import type { BuildView } from '../builds/buildView.ts';
import type { Plans } from './plans.ts';

/** A plan as it is worked off: it stays where it is under the finger until a person has it made again. */
export interface WorkedPlan {
  readonly plans: Plans;
  /** the points as they were when it was made */
  readonly points: readonly PiecePoint[];
  /** points at which something was done since, whether as planned or not */
  readonly done: ReadonlySet<string>;
}

interface Made {
  readonly plans: Plans;
  readonly points: readonly PiecePoint[];
  readonly choices: object;
  readonly changes: ReadonlyMap<string, string | undefined>;
}

/**
 * Holds a plan from its first move on: what is made again after each move would move the next one away from under the finger. Until
 * then, and after every choice of the person's own, it is always the newest.
 *
 * @param made the newest plan; null while there is none
 * @param current it answers what is asked now
 * @param choices what the person chose, the same object until they choose something else
 * @param pressed a finger is down on it
 * @returns the plan to work off, and how it is made again
 */
export function useWorkedPlan(
  build: BuildView,
  points: readonly PiecePoint[],
  made: Plans | null,
  current: boolean,
  choices: object,
  pressed: boolean,
): { readonly worked: WorkedPlan | null; readonly isOld: boolean; readonly renew: () => void } {
  const [held, setHeld] = useState<Made | null>(null);
  const [wantsNew, setWantsNew] = useState(false);
  const changeAt = (key: string) => lastChange(build.settings, key)?.id;
  const done = new Set(
    (held?.plans.plan.assignments ?? [])
      .map(({ key }) => key)
      .filter((key) => changeAt(key) !== held!.changes.get(key)),
  );
  const follows = held === null || ((done.size === 0 || held.choices !== choices || wantsNew) && !pressed);
  if (made && current && follows && held?.plans !== made) {
    setWantsNew(false);
    setHeld({
      ...{ plans: made, points, choices },
      changes: new Map(points.map(({ point: { key } }) => [key, changeAt(key)])),
    });
  }
  if (!held) return { worked: null, isOld: false, renew: () => undefined };
  return {
    worked: { plans: held.plans, points: held.points, done },
    isOld: !follows && made !== null && current && !isSame(held.plans, made, done),
    renew: () => setWantsNew(true),
  };
}

/** Whether what is left of a plan is what a newer one would have. */
function isSame(held: Plans, newer: Plans, done: ReadonlySet<string>): boolean {
  const moves = ({ plan }: Plans) =>
    plan.assignments
      .filter(
        ({ key, touched, source }) => touched && source !== 'keep' && source !== 'none' && !done.has(key),
      )
      .map(({ key, thickness }) => `${key} ${thickness}`)
      .sort()
      .join();
  return moves(held) === moves(newer);
}
