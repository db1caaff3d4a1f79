import type { SheetRevision } from '@zero-lash/contract/sheets';
import { useState } from 'react';
import { useSession } from '../app/useSession.ts';

/**
 * Holds a draft as it was when it came before its reader: whoever vouches for figures vouches for what they read, and nothing that
 * somebody else changes moves under their eyes. What is published is shown at once.
 *
 * @param now as it is by now; undefined until it has come
 * @param fetchAgain asks for it as it is
 * @example const { sheet, reread } = useAsRead(revision, async () => (await refetch()).data?.find(({ id }) => id === revision.id));
 */
export function useAsRead(
  now: SheetRevision | undefined,
  fetchAgain: () => Promise<SheetRevision | undefined>,
) {
  const me = useSession()?.person.name;
  const [read, setRead] = useState(now);
  const holds = read && now && read.id === now.id && now.status === 'draft' && now.enteredBy !== me;
  if (now && !holds && read !== now) setRead(now);
  return { sheet: holds ? read : now, reread: async () => setRead(await fetchAgain()) };
}
