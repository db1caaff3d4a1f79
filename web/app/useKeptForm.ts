import { useEffect, useState } from 'react';
import {
  useForm,
  type DefaultValues,
  type FieldValues,
  type UseFormProps,
  type UseFormReturn,
} from 'react-hook-form';
import { draftTyped } from './drafts.ts';
import { useAppDispatch, useAppSelector } from './store.ts';

/** A form as react-hook-form gives it, and how what was typed into it is forgotten. */
export type KeptForm<Values extends FieldValues> = UseFormReturn<Values> & { readonly forget: () => void };

/**
 * A form whose values are kept on the device as they are typed, until it is forgotten: it was sent, or is not wanted.
 *
 * @param key another one with every form, such as `engine:<id>`
 */
export function useKeptForm<Values extends FieldValues>(
  key: string,
  options: UseFormProps<Values> & { readonly defaultValues: DefaultValues<Values> },
): KeptForm<Values> {
  const dispatch = useAppDispatch();
  const [kept] = useState(useAppSelector((state) => state.drafts[key]));
  const form = useForm<Values>({
    ...options,
    defaultValues: kept
      ? { ...options.defaultValues, ...(JSON.parse(kept) as DefaultValues<Values>) }
      : options.defaultValues,
  });
  const { watch } = form;
  useEffect(() => {
    const watching = watch((values) => dispatch(draftTyped({ key, text: JSON.stringify(values) })));
    return () => watching.unsubscribe();
  }, [watch, dispatch, key]);
  return { ...form, forget: () => dispatch(draftTyped({ key, text: '' })) };
}
