import { useSession } from './useSession.ts';

/** What the person signed in may do; the server checks it again. */
export function useRole() {
  const role = useSession()?.person.role;
  return { mayWork: role === 'bench' || role === 'lead', mayLead: role === 'lead' };
}
