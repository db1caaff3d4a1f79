import { useMemo } from 'react';
import { draftTyped } from './drafts.ts';
import { useAppDispatch, useAppSelector } from './store.ts';
import { useStable } from './useStable.ts';

/** Texts of a form by the names of its fields. */
type Texts = Readonly<Record<string, string>>;

const NONE: Texts = {};

/** What is typed into a form: each field as it is typed, or as it is saved where nothing else was typed. */
export interface Draft<Saved extends Texts> {
  readonly texts: Saved & Texts;
  readonly type: (field: string, text: string) => void;
  /** what was typed and is not as it is saved */
  readonly changed: Texts;
  /** forgets what was typed: it is saved, or not wanted */
  readonly clear: () => void;
}

/**
 * Keeps what is typed into a form on the device as it is typed, until it is saved or put back: leaving the page, going on or a reload
 * loses none of it.
 *
 * @param key another one with every form, such as `conditions:<round>`
 * @param saved the fields as they are saved
 * @example const { texts, type } = useDraft(`last-check:${engine.id}`, { by: '' });
 */
export function useDraft<Saved extends Texts>(key: string, saved: Saved): Draft<Saved> {
  const dispatch = useAppDispatch();
  const kept = useAppSelector((state) => state.drafts[key]);
  const typed = useMemo(() => (kept ? (JSON.parse(kept) as Texts) : NONE), [kept]);
  const keep = (texts: Texts) =>
    dispatch(draftTyped({ key, text: Object.keys(texts).length === 0 ? '' : JSON.stringify(texts) }));
  const type = useStable((field: string, text: string) => {
    const { [field]: _, ...others } = typed;
    // put back as it was it is no draft
    keep(text === (saved[field] ?? '') ? others : { ...others, [field]: text });
  });
  const clear = useStable(() => keep(NONE));
  return { texts: { ...saved, ...typed }, type, changed: typed, clear };
}
