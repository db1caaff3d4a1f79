import { counted } from '../length/index.ts';
import type { Pattern } from '../sheets/index.ts';

/** What a round is taken under, as far as it bears on its readings. */
export interface Conditions {
  readonly engineTempC: number | null;
  readonly hoursSinceRun: number | null;
  /** what the bench says the engine is */
  readonly condition: 'cold' | 'hot' | null;
}

/** What a sheet's figures hold for. */
export interface Meant {
  readonly condition: 'cold' | 'hot';
  readonly temperature: { readonly from: number; readonly to: number } | null;
  readonly pattern?: Pick<Pattern, 'readiness'> | undefined;
  /** hours after which the shop takes a stopped engine for cold, where its source does not say */
  readonly coldHours?: number | undefined;
}

/** Hours a stopped engine takes until its valve gear is as cold as its room, where neither its source nor the shop says. */
const HOURS_TO_GO_COLD = 6;

/**
 * Says where the conditions of a round do not fit what its sheet means: shown, kept, never converted.
 *
 * @example conditionCautions({ condition: 'cold', temperature: null }, { engineTempC: null, hoursSinceRun: 2, condition: null }).length // 1
 */
export function conditionCautions(sheet: Meant, round: Conditions): string[] {
  const { engineTempC, hoursSinceRun, condition } = round;
  const coldAfter = sheet.pattern?.readiness?.coldHours ?? sheet.coldHours ?? HOURS_TO_GO_COLD;
  const found: string[] = [];
  if (condition !== null && condition !== sheet.condition)
    found.push(`The sheet’s figures are ${sheet.condition}; the engine is said to be ${condition}.`);
  if (sheet.condition === 'cold' && hoursSinceRun !== null && hoursSinceRun < coldAfter)
    found.push(
      `The sheet says cold, and the engine stopped ${counted(hoursSinceRun, 'hour')} ago: it is cold after ${coldAfter}. What is read now is not what the sheet means.`,
    );
  if (sheet.temperature && engineTempC !== null) {
    const { from, to } = sheet.temperature;
    if (engineTempC < from || engineTempC > to)
      found.push(`The sheet’s figures hold from ${from} to ${to} °C; the engine is at ${engineTempC} °C.`);
  }
  return found;
}

/** How long an engine that is measured hot stays as hot as its sheet means. */
export interface HotClock {
  /** ms since the epoch */
  readonly shutDownAt: number;
  /** minutes since then */
  readonly minutes: number;
  /** minutes in which its figures hold, and what is left of them; null where the source does not say */
  readonly holds: number | null;
  readonly left: number | null;
}

/**
 * Runs the clock of an engine that is measured hot, from when it was shut down, as it was last said.
 *
 * Rule: past the sheet's time what is left waits until it was run warm again.
 *
 * @param said what was said of the conditions of a round, in its order: `at` as an ISO moment
 * @param now ms since the epoch
 * @returns null for a sheet that is cold, and where nobody said when it was shut down
 * @example hotClock({ condition: 'hot', temperature: null }, [{ engineTempC: 80, hoursSinceRun: 0, condition: 'hot', at: '2031-01-01T10:00:00Z' }], Date.parse('2031-01-01T10:12:00Z'))?.minutes // 12
 */
export function hotClock(
  { condition, pattern }: Meant,
  said: readonly (Conditions & { readonly at: string })[],
  now: number,
): HotClock | null {
  const last = said.findLast(({ hoursSinceRun }) => hoursSinceRun !== null);
  if (condition !== 'hot' || !last) return null;
  const shutDownAt = Date.parse(last.at) - last.hoursSinceRun! * 3_600_000;
  const minutes = Math.max(0, Math.floor((now - shutDownAt) / 60_000));
  const holds = pattern?.readiness?.hotMinutes ?? null;
  return { shutDownAt, minutes, holds, left: holds === null ? null : Math.max(0, holds - minutes) };
}
