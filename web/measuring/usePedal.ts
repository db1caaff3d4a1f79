import { useEffect } from 'react';
import type { PedalAction } from '../app/preferences.ts';
import { useAppSelector } from '../app/store.ts';
import { useStable } from '../app/useStable.ts';

/** What a press of the pedal does, and when it was pressed, in ms. */
export type PedalWork = Readonly<Record<PedalAction, (at: number) => void>>;

/** Keys that a pedal cannot be taught: they type figures, answer by a letter, or walk the page. */
const NOT_TAUGHT =
  /^([\d.,<>"gdwnu?/]|Tab|Escape|Backspace|Delete|Shift|Control|Alt|AltGraph|Meta|CapsLock|Unidentified)$/i;

/**
 * Says why a pedal cannot be taught a key; null where it can.
 *
 * @example whyNotTaught('g') // a sentence
 */
export function whyNotTaught(key: string): string | null {
  return NOT_TAUGHT.test(key)
    ? 'That key types here: let the pedal send another, such as Page Down or F8.'
    : null;
}

/** Entries in which a key is a press and no text. */
const NO_TEXT = new Set(['checkbox', 'radio', 'button', 'submit', 'range', 'file']);

/**
 * Whether text is being typed where a key goes: a note, a form. There the pedal answers for no blade; at the entry of a gap it
 * does while nothing is typed in it, or by a key that types nothing.
 */
function isTyping({ target, key }: KeyboardEvent): boolean {
  if (!(target instanceof HTMLElement)) return false;
  if (
    target.isContentEditable ||
    target instanceof HTMLTextAreaElement ||
    target instanceof HTMLSelectElement
  )
    return true;
  if (!(target instanceof HTMLInputElement) || NO_TEXT.has(target.type)) return false;
  return !target.classList.contains('entry-text') || (target.value !== '' && key.length === 1);
}

/** Listens to the pedal while a point is measured, wherever on the page it stands, but where text is being typed. */
export function usePedal(work: PedalWork): void {
  const pedal = useAppSelector((state) => state.preferences.pedal);
  const press = useStable((event: KeyboardEvent) => {
    const action = (Object.keys(pedal) as PedalAction[]).find((each) => pedal[each] === event.key);
    if (!action || event.ctrlKey || event.altKey || event.metaKey || isTyping(event)) return;
    // nothing else is to be done by it, not even by holding it down
    event.preventDefault();
    event.stopPropagation();
    if (!event.repeat) work[action](event.timeStamp);
  });
  useEffect(() => {
    window.addEventListener('keydown', press, { capture: true });
    return () => window.removeEventListener('keydown', press, { capture: true });
  }, [press]);
}
