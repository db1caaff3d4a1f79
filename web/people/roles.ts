import type { PersonRole } from '@zero-lash/contract/people';

/** What each role may do, in a line. */
export const PERSON_ROLE_WORDS: Readonly<Record<PersonRole, string>> = {
  bench: 'bench: measures and sets',
  lead: 'lead: also signs off, publishes, manages people',
  viewer: 'viewer: reads',
};
