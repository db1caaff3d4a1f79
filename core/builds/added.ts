import { stageOf, type StageKey } from './stages.ts';

/**
 * Finds what was added to a sign-off: what was written down where it was signed, after it was. The sign-off itself is never
 * changed.
 *
 * @example addedTo(build.signOff, build.notes).map(({ text }) => text)
 */
export function addedTo<Note extends { readonly stage: StageKey; readonly at: string }>(
  signOff: { readonly at: string },
  notes: readonly Note[],
): readonly Note[] {
  const signed = Date.parse(signOff.at);
  return notes.filter(
    ({ stage, at }) => stageOf(stage).demands.includes('signed-off') && Date.parse(at) > signed,
  );
}
