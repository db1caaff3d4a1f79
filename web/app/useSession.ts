import type { Session } from '@zero-lash/contract/people';
import { useAppSelector } from './store.ts';
import { sessionApi } from './session.ts';

const selectSession = sessionApi.endpoints.session.select();

/**
 * Who is signed in, read from what the frame has fetched: it asks for nothing itself, so that what is drawn at every tap
 * may use it.
 */
export function useSession(): Session | undefined {
  return useAppSelector((state) => selectSession(state).data);
}
