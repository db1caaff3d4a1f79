import type { BuildState, RoundState } from './buildState.ts';
import { findingsNow, newestRound } from './findings.ts';
import { provenBy } from './proved.ts';
import { stageMeasuring, stageOf, type StageKey } from './stages.ts';

type WithRounds<Round extends RoundState> = Omit<BuildState, 'rounds' | 'signOff'> & {
  readonly rounds: readonly Round[];
  readonly signOff?: object | null;
};

/**
 * Finds the round whose readings belong to a stage: what is measured there, or what there is to go by. Where a point is set, that is
 * its newest finding, whichever round it was made in; where it is proved, what the newest round says of it, or what proves it from
 * an earlier one.
 *
 * @example roundOfStage(build, 'set')?.readings // the newest finding of each point
 */
export function roundOfStage<Round extends RoundState>(
  build: WithRounds<Round>,
  stage: StageKey,
): Round | undefined {
  const { shows } = stageOf(stage);
  const newest = (kind: Round['kind']) => newestRound(build.rounds, kind);
  if (shows === null) return undefined;
  const last = shows === 'recheck' ? (newest('recheck') ?? newest('proved')) : undefined;
  if (last?.kind === 'recheck') return last;
  if (shows === 'as-found') return newest(shows);
  if (shows !== 'finding') {
    const proving = newest('proved');
    return proving && { ...proving, readings: provedAt(build, proving) };
  }
  const base = newest('as-set') ?? newest('proved') ?? newest('as-found');
  return base && { ...base, readings: [...findingsNow(build, 'before-lock').values()] };
}

/** What stands at each point at proving: what proves it, or else what the newest round says of it. */
function provedAt<Round extends RoundState>(build: WithRounds<Round>, proving: Round): Round['readings'] {
  const readings = new Map<string, Round['readings'][number]>(provenBy(build));
  for (const reading of proving.readings)
    if (!readings.has(reading.point)) readings.set(reading.point, reading);
  return [...readings.values()];
}

/**
 * Says whether a round is the one that readings may be added to now.
 *
 * @example isOpenRound(build, roundOfStage(build, build.stage))
 */
export function isOpenRound(
  build: { readonly stage: StageKey; readonly closedAt: string | null },
  round: (RoundState & { readonly closedAt: string | null }) | undefined,
): boolean {
  if (!round || round.closedAt || build.closedAt) return false;
  return stageMeasuring(round.kind).key === build.stage;
}
