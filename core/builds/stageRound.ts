import type { BuildState, RoundState } from './buildState.ts';
import { findingsNow, newestRound } from './findings.ts';
import { provenBy } from './proved.ts';
import { lastChange } from './lastChange.ts';
import { lastTakenApart } from './disturbed.ts';
import { type JobKey } from './jobs.ts';
import { measuredAt, setsAsFound } from './jobStages.ts';
import { stageOf, type RoundKind, type StageKey } from './stages.ts';

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
  build: { readonly job: JobKey; readonly stage: StageKey; readonly closedAt: string | null },
  round: (RoundState & { readonly closedAt: string | null }) | undefined,
): boolean {
  if (!round || round.closedAt || build.closedAt) return false;
  return measuredAt(build.job, round.kind) === build.stage;
}

/**
 * Says what kind of reading one taken at a point now is, where gaps are found and set in one lap: of what nobody touched it says how
 * it was found, of the rest how it was set.
 *
 * @example kindInLap({ sheet, settings: [], ticks: [] }, '1I') // 'as-found'
 */
export const kindInLap = (
  build: Pick<BuildState, 'sheet' | 'settings' | 'ticks'>,
  point: string,
): 'as-found' | 'as-set' =>
  lastChange(build.settings, point) === null &&
  !build.settings.some((each) => each.point === point && each.cause === 'apart') &&
  !lastTakenApart(build).has(point)
    ? 'as-found'
    : 'as-set';

/**
 * Finds the round that a reading taken at a point of a stage goes into: the one that is shown there; where gaps are found and set in
 * one lap, the one that says how it was found until the point is touched.
 *
 * @example roundToRead(build, 'set', '1I')?.kind // 'as-found', in a valve check
 */
export function roundToRead<Round extends RoundState & { readonly closedAt?: string | null }>(
  build: WithRounds<Round>,
  stage: StageKey,
  point: string,
): Round | undefined {
  if (!setsAsFound(build.job, stage)) return roundOfStage(build, stage);
  const shown = roundOfStage(build, stage);
  const found = newestRound(build.rounds, 'as-found');
  // once it is closed nothing more is found: it was proved since
  return found && !found.closedAt && kindInLap(build, point) === found.kind ? found : shown;
}

/**
 * Says by which limits the points of a stage are held: those of a kind of round; where gaps are found and set in one lap, of the round
 * that a reading at each point belongs to.
 *
 * @param shown the kind of round that is looked at
 * @example pointsHeld(sheet, limitsOfStage(build, 'set', 'as-set'), build.settings)
 */
export function limitsOfStage(
  build: Pick<BuildState, 'job' | 'sheet' | 'settings' | 'ticks'>,
  stage: StageKey,
  shown: RoundKind | null,
): RoundKind | ((point: string) => RoundKind) | null {
  if (setsAsFound(build.job, stage)) return (point) => kindInLap(build, point);
  return stageOf(stage).sets ? 'as-set' : shown;
}
