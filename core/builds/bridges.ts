import { subjectOf } from '../checks/index.ts';
import { lashPoints, type Pattern } from '../sheets/index.ts';
import type { SettingState, CheckState } from './buildState.ts';
import { SETTING } from './stages.ts';

/**
 * Lists the points whose rocker works two valves over a bridge.
 *
 * @example bridgedPoints(inlineFour) // ['1E', '2E', '3E', '4E']
 */
export function bridgedPoints(pattern: Pattern): readonly string[] {
  return lashPoints(pattern)
    .filter(({ role }) => (role === 'intake' || role === 'exhaust') && pattern.bridges[role])
    .map(({ key }) => key);
}

/**
 * Lists the points whose bridge is balanced by a screw before the lash over it is set: guided ones. A plain bridge has nothing to
 * balance it by.
 *
 * @example balancedPoints({ ...inlineFour, bridgeKind: 'guided' }) // ['1E', '2E', '3E', '4E']
 */
export const balancedPoints = (pattern: Pattern): readonly string[] =>
  pattern.bridgeKind === 'guided' ? bridgedPoints(pattern) : [];

/**
 * Lists the points that were set although their bridge was not balanced first.
 *
 * Rule: a guided bridge that leans on one valve reads as a gap at the other; it is balanced with its rocker clear, and locked
 * without twisting its guide, before the lash over it is set.
 *
 * @example bridgesOpen(build) // []
 */
export function bridgesOpen({
  sheet: { pattern },
  settings,
  ticks,
}: {
  readonly sheet: { readonly pattern: Pattern };
  readonly settings: readonly SettingState[];
  readonly ticks: readonly CheckState[];
}): readonly string[] {
  const balanced = new Set(
    ticks
      .filter(({ stage, done }) => stage === SETTING && done)
      .flatMap(({ check }) => subjectOf('bridge', check) ?? []),
  );
  const set = new Set(settings.filter(({ kind }) => kind !== 'left').map(({ point }) => point));
  return balancedPoints(pattern).filter((point) => set.has(point) && !balanced.has(point));
}
