import { LEAST_PASSPHRASE, type PersonRole } from '@zero-lash/contract/people';

/** What each role may do, in a line. */
export const PERSON_ROLE_WORDS: Readonly<Record<PersonRole, string>> = {
  bench: 'bench: measures and sets',
  lead: 'lead: also signs off, publishes, manages people',
  viewer: 'viewer: reads',
};

/** What a passphrase has to be, said beside where it is chosen. */
export const PASSPHRASE_RULE = `At least ${LEAST_PASSPHRASE} characters: a few words together are kept easily and hard to guess.`;
