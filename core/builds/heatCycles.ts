import { checkKey } from '../checks/index.ts';
import type { Bank } from '../sheets/index.ts';
import type { BuildState, CheckState, RunInSays } from './buildState.ts';
import { jobOf, type JobKey } from './jobs.ts';
import { SETTING } from './stages.ts';

/** A sheet that says nothing of it. */
export const NO_RUN_IN: RunInSays = { heatCycles: 0, retorque: false };

/** Every check of the heat cycles that a sheet asks for. */
export const heatCyclesOf = ({ heatCycles }: RunInSays): readonly string[] =>
  Array.from({ length: heatCycles }, (_, index) => checkKey('heat-cycle', index + 1));

/** What is left of an engine's first hours. */
export interface RunInLeft {
  readonly cycles: number;
  /** heads that are tightened again and were not since the last heat cycle */
  readonly heads: readonly Bank[];
}

/**
 * Finds what is left of the heat cycles, and which heads are still to be tightened again after the last of them.
 *
 * Rule: a gasket settles by heat; a head torqued before the last heat cycle was torqued too early, and one torqued after it
 * moves every gap under it.
 *
 * @param banks heads of the engine
 * @example runInLeft({ heatCycles: 2, retorque: true }, ['A'], ticks).cycles // 2
 */
export function runInLeft(says: RunInSays, banks: readonly Bank[], ticks: readonly CheckState[]): RunInLeft {
  const checks = new Set(heatCyclesOf(says));
  const done = ticks.filter((tick) => tick.done && checks.has(tick.check));
  const cycles = says.heatCycles - done.length;
  if (!says.retorque || cycles > 0 || done.length === 0) return { cycles, heads: [] };
  const cold = Math.max(...done.map(({ at }) => Date.parse(at)));
  const torqued = (bank: Bank) =>
    ticks.some(
      ({ stage, check, done: isDone, at }) =>
        isDone && stage === SETTING && check === checkKey('head', bank) && Date.parse(at) >= cold,
    );
  return { cycles, heads: banks.filter((bank) => !torqued(bank)) };
}

/**
 * Lists the heads that are tightened again at a first check, where the sheet asks for it, and that are not yet.
 *
 * Rule: a new gasket settles in its first hours; what the head is tightened by moves every gap under it.
 *
 * @example headsToTighten(build) // []
 */
export function headsToTighten({
  job,
  sheet,
  ticks,
}: {
  readonly job: JobKey;
  readonly sheet: Pick<BuildState['sheet'], 'pattern' | 'runIn'>;
  readonly ticks: readonly CheckState[];
}): readonly string[] {
  if (!jobOf(job).tightensHead || !sheet.runIn?.retorque) return [];
  const banks = [...new Set(sheet.pattern.cylinders.map(({ bank }) => bank))].sort();
  return banks.filter(
    (bank) =>
      !ticks.some(({ stage, check, done }) => done && stage === SETTING && check === checkKey('head', bank)),
  );
}
