import type { Session } from '@zero-lash/contract/people';
import { useAppSelector } from '../app/store.ts';
import { peopleApi } from './endpoints.ts';

const selectSession = peopleApi.endpoints.session.select();

/**
 * Who is signed in, read from what the frame has fetched: it asks for nothing itself, so that what is drawn at every tap
 * may use it.
 */
export function useSession(): Session | undefined {
  return useAppSelector((state) => selectSession(state).data);
}
