import { stageOf, type StageKey } from './stages.ts';

/**
 * Finds what was added to a sign-off: what was written down where it was signed, after it was. The sign-off itself is never
 * changed.
 *
 * @example addedTo({ at: at(90) }, [{ stage: CLOSING, at: at(95), text: 'Plate fitted' }]).map(({ text }) => text) // ['Plate fitted']
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
