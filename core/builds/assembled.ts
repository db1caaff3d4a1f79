import { assemblyAt, type AssemblyStep } from '../assembly/index.ts';
import { camOutAt } from './disturbed.ts';
import type { KeptBuild } from './standing.ts';

/**
 * Names the steps of assembly that are done as it stands: one that was ticked before a cam, or the rockers, last came out is not
 * done any more.
 *
 * Rule: what was taken apart again is put together again.
 *
 * @example assemblyDone(build).has('step 0') // false after a shim under a bucket was changed
 */
export function assemblyDone(build: Pick<KeptBuild, 'sheet' | 'settings' | 'ticks'>): ReadonlySet<string> {
  const steps = new Set(
    (build.sheet.assembly ?? ([] as readonly AssemblyStep[])).map((_, at) => assemblyAt(at)),
  );
  const out = camOutAt(build);
  return new Set(
    build.ticks
      .filter(({ check, done, at }) => done && steps.has(check) && Date.parse(at) > out)
      .map(({ check }) => check),
  );
}
