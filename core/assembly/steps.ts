const MARK = 'step ';

/** One thing a sheet says of putting an engine together. */
export interface AssemblyStep {
  readonly text: string;
  /** it may not be skipped */
  readonly hold: boolean;
}

/**
 * Names the check by which a step of assembly is ticked off, by its place in the sheet, from 0.
 *
 * @example assemblyAt(0) // 'step 0'
 */
export const assemblyAt = (index: number): string => `${MARK}${index}`;

/**
 * Says whether a check is one of a step that a sheet has.
 *
 * @example isAssembly('step 3', steps) // false where there are three
 */
export const isAssembly = (check: string, steps: readonly AssemblyStep[]): boolean =>
  steps.some((_, index) => assemblyAt(index) === check);

/**
 * Lists the steps that may not be skipped and are not done, once anything was taken apart that they put together, or any of them
 * is done: on an engine of which nothing was taken apart nobody puts anything together.
 *
 * @param done checks that are ticked
 * @param apart something was taken apart that the steps put together
 * @example assemblyLeft(steps, new Set(['step 0'])).map(({ text }) => text)
 */
export function assemblyLeft(
  steps: readonly AssemblyStep[],
  done: ReadonlySet<string>,
  apart = false,
): readonly AssemblyStep[] {
  const begun = apart || steps.some((_, index) => done.has(assemblyAt(index)));
  return begun ? steps.filter(({ hold }, index) => hold && !done.has(assemblyAt(index))) : [];
}
