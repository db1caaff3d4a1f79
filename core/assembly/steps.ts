import { checkKey } from '../checks/index.ts';

/** One thing a sheet says of putting an engine together. */
export interface AssemblyStep {
  readonly text: string;
  /** it may not be skipped */
  readonly hold: boolean;
}

/**
 * Lists the steps that may not be skipped and are not done, once anything was taken apart that they put together, or any of them
 * is done: on an engine of which nothing was taken apart nobody puts anything together.
 *
 * @param done checks that are ticked
 * @param apart something was taken apart that the steps put together
 * @example assemblyLeft(sheet.assembly, new Set(['step 0'])).map(({ text }) => text) // ['Cams to their marks']
 */
export function assemblyLeft(
  steps: readonly AssemblyStep[],
  done: ReadonlySet<string>,
  apart = false,
): readonly AssemblyStep[] {
  const begun = apart || steps.some((_, index) => done.has(checkKey('step', index)));
  return begun ? steps.filter(({ hold }, index) => hold && !done.has(checkKey('step', index))) : [];
}
