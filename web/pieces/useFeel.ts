import type { Feel } from '@zero-lash/contract/setting';
import { useEffect, useRef } from 'react';
import { useAppSelector } from '../app/store.ts';
import { useFeelQuery } from './endpoints.ts';

/** What one's own hand adds, as the server last worked it out: asked again when what was measured here has been sent. */
export function useFeel(): Feel | undefined {
  const { data, refetch } = useFeelQuery(undefined, { refetchOnMountOrArgChange: true });
  const waits = useAppSelector((state) =>
    state.outbox.items.some(({ kind, refused }) => kind === 'reading' && refused === null),
  );
  const waited = useRef(waits);
  useEffect(() => {
    if (waited.current && !waits) void refetch();
    waited.current = waits;
  }, [waits]);
  return data;
}
