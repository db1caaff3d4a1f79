import { hash, verify } from '@node-rs/argon2';

/** argon2id is the library's default algorithm; these are the costs. */
const COST = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };

/** Hashes a passphrase with argon2id. */
export const hashPassphrase = (passphrase: string): Promise<string> => hash(passphrase, COST);

/** Says whether a passphrase belongs to a hash. */
export const passphraseMatches = (stored: string, passphrase: string): Promise<boolean> =>
  verify(stored, passphrase);
