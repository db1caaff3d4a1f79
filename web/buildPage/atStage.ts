import {
  countsFrom,
  lastChange,
  lastDisturbed,
  lastDone,
  measuredAt,
  newestRound,
  notMeasured,
  stageOf,
  unopenedHeads,
  type StageKey,
} from '@zero-lash/core/builds';
import type { Round } from '@zero-lash/contract/measuring';
import type { BuildView } from '../builds/buildView.ts';
import type { LastChange } from './headPoints.ts';

/** The round in which is measured how an engine was found, until that is closed. */
export const openFound = (rounds: readonly Round[]): Round | undefined => {
  const found = newestRound(rounds, 'as-found');
  return found?.closedAt === null ? found : undefined;
};

/** A round without what was read in it. */
export function withoutReadings({
  readings: _,
  turning: __,
  ...round
}: Round): Omit<Round, 'readings' | 'turning'> {
  return round;
}

/** What was last changed at each point, where that bears on what is shown: how it was found stays how it was found. */
export function changesAt(build: BuildView, looking: StageKey): LastChange {
  const { settings } = build;
  const { shows, sets } = stageOf(looking);
  if (shows === 'as-found') return () => null;
  if (sets) return (key) => lastChange(settings, key);
  // what proves a point is held against all that disturbed it: a cam that was out disturbs its neighbours too
  const disturbed = lastDisturbed(build);
  const from = shows === 'proved' ? countsFrom(build) : null;
  return (key) => {
    const own = lastChange(settings, key);
    const at = disturbed.get(key) ?? null;
    const counts = from?.get(key);
    if (at === null && counts === undefined) return own;
    return {
      ...{ at, fitted: own?.fitted ?? null, kind: own?.kind ?? 'turned' },
      ...(counts === undefined ? {} : { counts }),
    };
  };
}

/** Points that are not measured, by why: what came apart is measured as any other once it is set; a head that is not opened later. */
export const passedBy = (build: BuildView, looking: StageKey) => [
  ...unopenedHeads(build).flatMap(({ points }) => points.map((point) => [point, 'unopened'] as const)),
  ...[...notMeasured(build).values()].flatMap(({ point, cause }) => {
    if (cause === 'chosen' || (cause === 'apart' && measuredAt(build.job, 'as-found') !== looking)) return [];
    return [[point, cause] as const];
  }),
];

/** Points that were left alone on purpose, when last anything was done there. */
export function leftAlone({ settings }: BuildView): ReadonlySet<string> {
  return new Set(
    settings
      .filter(({ point }) => {
        const done = lastDone(settings, point);
        return done?.kind === 'left' && done.cause === 'chosen';
      })
      .map(({ point }) => point),
  );
}
