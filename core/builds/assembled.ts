import { checkKey } from '../checks/index.ts';
import { capPasses, passesOf, type AssemblyStep } from '../assembly/index.ts';
import { camCapsOffAt, camOutAt } from './disturbed.ts';
import type { BuildState } from './buildState.ts';

/**
 * Names the steps of assembly that are done as it stands: one that was ticked before a cam, or the rockers, last came out is not
 * done any more.
 *
 * Rule: what was taken apart again is put together again.
 *
 * @example assemblyDone(build).has('step 0') // false after a shim under a bucket was changed
 */
export function assemblyDone(build: Pick<BuildState, 'sheet' | 'settings' | 'ticks'>): ReadonlySet<string> {
  const steps = new Set(
    (build.sheet.assembly ?? ([] as readonly AssemblyStep[])).map((_, at) => checkKey('step', at)),
  );
  const out = camOutAt(build);
  return new Set(
    build.ticks
      .filter(({ check, done, at }) => done && steps.has(check) && Date.parse(at) > out)
      .map(({ check }) => check),
  );
}

/**
 * Names the passes of tightening that are done as it stands: those of the cam caps that were ticked before a cam last came out are
 * not done any more.
 *
 * @example passesDone(build).has('pass 0.0') // false after a shim under a bucket was changed
 */
export function passesDone(build: Pick<BuildState, 'sheet' | 'settings' | 'ticks'>): ReadonlySet<string> {
  const torques = build.sheet.torques ?? [];
  const passes = new Set(passesOf(torques).map(({ key }) => key));
  const caps = new Set(capPasses(torques).map(({ key }) => key));
  const out = camCapsOffAt(build);
  return new Set(
    build.ticks
      .filter(
        ({ check, done, at }) => done && passes.has(check) && !(caps.has(check) && Date.parse(at) <= out),
      )
      .map(({ check }) => check),
  );
}

/**
 * Lists the passes of the cam caps that are wanted before the crank is turned, in words: a cam was out, and they are not tightened
 * since. A sheet that gives none says nothing of it.
 *
 * @example capsLoose(build) // []
 */
export function capsLoose(build: Pick<BuildState, 'sheet' | 'settings' | 'ticks'>): readonly string[] {
  if (camCapsOffAt(build) === -Infinity) return [];
  const done = passesDone(build);
  return capPasses(build.sheet.torques ?? [])
    .filter(({ key }) => !done.has(key))
    .map(({ fastening, number, of, step }) => `${fastening}, pass ${number} of ${of} (${step.asWritten})`);
}
