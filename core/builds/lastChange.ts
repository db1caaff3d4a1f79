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
 * Finds what was said of a point that was not measured: that it cannot be reached, or came apart before anybody measured it; null where
 * nothing was, or where it was measured since.
 *
 * @param reading the newest at the point that proves anything; undefined where there is none
 * @example notMeasuredAt(build.settings, '1I', undefined) // null
 */
export function notMeasuredAt<Setting extends SettingState>(
  settings: readonly Setting[],
  point: string,
  reading: { readonly takenAt: string } | undefined,
): Setting | null {
  const done = lastDone(settings, point);
  if (done?.kind !== 'left' || (done.cause ?? 'chosen') === 'chosen') return null;
  return reading && Date.parse(reading.takenAt) >= Date.parse(done.at) ? null : done;
}

/**
 * Lists the points that cannot be reached, as somebody said, and that nobody measured since, in any round.
 *
 * @example unreachedPoints(build) // []
 */
export function unreachedPoints({
  settings,
  rounds,
}: {
  readonly settings: readonly SettingState[];
  readonly rounds: readonly RoundState[];
}): readonly string[] {
  const read = rounds.flatMap(({ readings }) => readings);
  return [...new Set(settings.map(({ point }) => point))].filter((point) => {
    const newest = read
      .filter((reading) => reading.point === point)
      .toSorted((a, b) => Date.parse(a.takenAt) - Date.parse(b.takenAt))
      .at(-1);
    return notMeasuredAt(settings, point, newest)?.cause === 'unreached';
  });
}

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
