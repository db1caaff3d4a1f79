import { useDraft } from './useDraft.ts';

/**
 * A text of a form as `useState` gives it, kept on the device as it is typed until it is put back to what it was: leaving the page,
 * going on or a reload loses none of it.
 *
 * @param key another one with every field, such as `strike:<reading>`
 * @param saved what stands there before anything is typed
 * @example const [why, setWhy] = useKeptText(`set-cold:${build.id}`);
 */
export function useKeptText(key: string, saved = ''): readonly [string, (text: string) => void] {
  const { texts, type } = useDraft(key, { text: saved });
  return [texts.text, (text) => type('text', text)];
}
