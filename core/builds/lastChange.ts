import type { SettingState } from './buildState.ts';

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
