import { whyNoProof } from '../measuring/index.ts';
import type { RoundState, SettingState } from './buildState.ts';

/**
 * Finds what was last done at a point, be it that it was left alone; undefined where nothing was.
 *
 * @example lastDone(build.settings, '2I')?.kind // 'left'
 */
export function lastDone<Setting extends SettingState>(
  settings: readonly Setting[],
  point: string,
): Setting | undefined {
  return settings
    .filter((setting) => setting.point === point)
    .reduce<Setting | undefined>(
      (last, setting) => (last && Date.parse(last.at) > Date.parse(setting.at) ? last : setting),
      undefined,
    );
}

/**
 * Finds the points that were not measured, with what was said of why: they cannot be reached, or came apart before anybody measured them.
 * A point of which a reading proves anything, whenever it was taken, is not among them, nor one that was set.
 *
 * @example notMeasured(build).get('1I')?.cause // undefined
 */
export function notMeasured<Setting extends SettingState>({
  settings,
  rounds,
}: {
  readonly settings: readonly Setting[];
  readonly rounds: readonly RoundState[];
}): ReadonlyMap<string, Setting> {
  const measured = new Set(
    rounds.flatMap(({ readings }) =>
      readings.filter((reading) => whyNoProof(reading, null) === null).map(({ point }) => point),
    ),
  );
  const points = [...new Set(settings.map(({ point }) => point))].filter((point) => !measured.has(point));
  return new Map(
    points.flatMap((point) => {
      const done = lastChange(settings, point) === null ? lastDone(settings, point) : undefined;
      return done?.kind === 'left' && (done.cause ?? 'chosen') !== 'chosen' ? [[point, done] as const] : [];
    }),
  );
}

/**
 * Lists the points that cannot be reached, as somebody said, and that nobody measured in any round.
 *
 * @example unreachedPoints(build) // []
 */
export const unreachedPoints = (build: Parameters<typeof notMeasured>[0]): readonly string[] =>
  [...notMeasured(build).values()].filter(({ cause }) => cause === 'unreached').map(({ point }) => point);

/**
 * Lists the points that nothing is in: what was in was taken out, to measure them bare, and nothing was fitted since.
 *
 * @example pointsBare([{ point: '1I', kind: 'bare', at: at(5) }]) // ['1I']
 */
export function pointsBare(settings: readonly SettingState[]): readonly string[] {
  return settings
    .filter(({ kind, point }) => kind === 'bare' && lastChange(settings, point)?.kind === 'bare')
    .map(({ point }) => point);
}

/**
 * Finds what was last turned, fitted or taken out at a point; null where nothing was.
 *
 * @example lastChange(build.settings, '2I')?.at
 */
export function lastChange<Setting extends SettingState>(
  settings: readonly Setting[],
  point: string,
): Setting | null {
  return settings.find((setting) => setting.point === point && setting.kind !== 'left') ?? null;
}
