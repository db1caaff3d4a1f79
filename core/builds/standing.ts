import type { Verdict } from '../measuring/index.ts';
import { lashPoints, type Pattern } from '../sheets/index.ts';
import type { BuildStanding } from './stageMove.ts';
import type { StageKey } from './stages.ts';

/** A build as it is kept, as far as its standing goes. Rounds are in the order they were opened. */
export interface KeptBuild {
  readonly stage: StageKey;
  readonly sheet: { readonly pattern: Pattern };
  readonly ticks: readonly { readonly stage: StageKey; readonly check: string }[];
  readonly rounds: readonly KeptRound[];
  readonly settings: readonly { readonly point: string; readonly at: string }[];
  readonly signOff: object | null;
}

/** A round as it is kept: the newest reading of each point. */
export interface KeptRound {
  readonly kind: 'as-found' | 'proved' | 'recheck';
  readonly openedAt: string;
  readonly readings: readonly { readonly point: string; readonly verdict: Verdict }[];
}

/**
 * Finds the newest round of a kind.
 *
 * @example newestRound(build.rounds, 'proved')?.readings.length
 */
export function newestRound<Round extends KeptRound>(
  rounds: readonly Round[],
  kind: Round['kind'],
): Round | undefined {
  return rounds.filter((round) => round.kind === kind).at(-1);
}

/**
 * Finds the round that is set by: the last proving round that found anything, else as found.
 *
 * @example roundToSetBy(build.rounds)?.kind // 'as-found' until the build was proved once
 */
export function roundToSetBy<Round extends KeptRound>(rounds: readonly Round[]): Round | undefined {
  const proved = newestRound(rounds, 'proved');
  return proved && proved.readings.length > 0 ? proved : newestRound(rounds, 'as-found');
}

/**
 * Lists the points set since the finding that is set by: a point found out at proving wants setting again, however
 * often it was set before.
 *
 * @example pointsSet(build).has('3E')
 */
export function pointsSet({ rounds, settings }: Pick<KeptBuild, 'rounds' | 'settings'>): Set<string> {
  const round = roundToSetBy(rounds);
  const since = round ? new Date(round.openedAt).getTime() : -Infinity;
  return new Set(settings.filter(({ at }) => new Date(at).getTime() >= since).map(({ point }) => point));
}

/**
 * Works out where a build stands, from what is kept of it: the browser and the server ask the same question of the
 * same rows, so they agree on whether a stage may be left.
 *
 * @example obstaclesTo(standingOf(build))
 */
export function standingOf(build: KeptBuild): BuildStanding {
  const verdicts = (round: KeptRound | undefined) =>
    new Map(round?.readings.map(({ point, verdict }) => [point, verdict]));
  return {
    stage: build.stage,
    ticked: new Set(build.ticks.map(({ stage, check }) => `${stage}:${check}`)),
    points: lashPoints(build.sheet.pattern).map(({ key }) => key),
    asFound: verdicts(newestRound(build.rounds, 'as-found')),
    toSetBy: verdicts(roundToSetBy(build.rounds)),
    proved: verdicts(newestRound(build.rounds, 'proved')),
    set: pointsSet(build),
    signedOff: build.signOff !== null,
  };
}
