import { whyNoProof, type NoProof } from '../measuring/index.ts';
import type { BuildState, RoundState } from './buildState.ts';
import { lastTakenApart } from './disturbed.ts';

/**
 * Finds the newest round of a kind.
 *
 * @example newestRound(build.rounds, 'proved')?.readings.length
 */
export function newestRound<Round extends RoundState>(
  rounds: readonly Round[],
  kind: Round['kind'],
): Round | undefined {
  return rounds.filter((round) => round.kind === kind).at(-1);
}

/**
 * Finds what each point is set by: its newest reading, as found or at proving, that proved anything when it was taken. A
 * finding stays one until the point is measured again, however often the build goes forth and back in between.
 *
 * @param also readings that prove nothing yet and count all the same: where a screw is set, one from before its locking
 * @example findings([round]).get('3E')?.verdict // 'tight'
 */
export function findings<Round extends RoundState>(
  rounds: readonly Round[],
  also: NoProof | null = null,
): ReadonlyMap<string, Round['readings'][number]> {
  const found = new Map<string, Round['readings'][number]>();
  for (const { kind, readings } of rounds)
    if (kind !== 'recheck')
      for (const reading of readings)
        if ([null, also].includes(whyNoProof(reading, null))) found.set(reading.point, reading);
  return found;
}

/**
 * Finds what each point is set by now: its newest finding, unless what it rested on was taken apart since.
 *
 * @param also see `findings`
 * @example findingsNow(build).has('3E') // false once its rocker shaft was off
 */
export function findingsNow<Round extends RoundState>(
  build: Pick<BuildState, 'sheet' | 'ticks'> & { readonly rounds: readonly Round[] },
  also: NoProof | null = null,
): ReadonlyMap<string, Round['readings'][number]> {
  const apart = lastTakenApart(build);
  const found = findings(build.rounds, also);
  if (apart.size === 0) return found;
  return new Map(
    [...found].filter(([point, { takenAt }]) => {
      const at = apart.get(point);
      return at === undefined || Date.parse(takenAt) >= Date.parse(at);
    }),
  );
}

/**
 * Lists the points set, or left alone on purpose, since their newest finding: a point found out at proving wants setting
 * again, however often it was set before.
 *
 * @example pointsSet(build).has('3E')
 */
export function pointsSet(build: Pick<BuildState, 'rounds' | 'settings' | 'sheet' | 'ticks'>): Set<string> {
  const found = findingsNow(build);
  return new Set(
    build.settings
      .filter(({ point, at, cause = 'chosen' }) => {
        if (cause !== 'chosen') return false;
        const finding = found.get(point);
        return !finding || Date.parse(at) >= Date.parse(finding.takenAt);
      })
      .map(({ point }) => point),
  );
}
