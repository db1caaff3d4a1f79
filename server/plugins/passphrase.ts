import { hash, hashRaw, verify } from '@node-rs/argon2';
import limit from 'p-limit';

/** argon2id is the library's default algorithm; these are the costs. */
const COST = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };

/** Passphrases worked on at once: they are dear on purpose, and the rest of the server goes on beside them. */
const atOnce = limit(2);

/** Hashes a passphrase with argon2id. */
export const hashPassphrase = (passphrase: string): Promise<string> => atOnce(() => hash(passphrase, COST));

/**
 * A mark that tells one passphrase from another, as dear to guess from as its hash.
 *
 * @param salt 64 hexadecimal digits
 * @returns 64 hexadecimal digits, the same for the same passphrase and salt
 */
export const passphraseMark = async (passphrase: string, salt: string): Promise<string> =>
  (await atOnce(() => hashRaw(passphrase, { ...COST, salt: Buffer.from(salt, 'hex') }))).toString('hex');

/** What stands for the hash of somebody who has no passphrase here: none matches it. */
export const NO_PASSPHRASE = 'none';

/** Says whether a passphrase belongs to a hash. */
export const passphraseMatches = (stored: string, passphrase: string): Promise<boolean> =>
  stored === NO_PASSPHRASE ? Promise.resolve(false) : atOnce(() => verify(stored, passphrase));
