import { randomBytes } from 'node:crypto';
import { madeOnce } from './madeOnce.ts';

const LEAST = 32;

/**
 * The shop's secret, which signs its cookies and keys what it hashes. It stands outside the database, so that a copy of
 * the database opens no door: in ZERO_LASH_SECRET, or in a file that is made where there is none. Several servers of one
 * shop are given the same.
 *
 * @throws Error when it is too short to be one
 */
export async function shopSecret(
  file: string,
  given: string | undefined = process.env.ZERO_LASH_SECRET,
): Promise<string> {
  const secret = given ?? (await madeOnce(file, () => `${randomBytes(32).toString('hex')}\n`)).trim();
  if (secret.length < LEAST)
    throw new Error(
      `The shop's secret (${given === undefined ? file : 'ZERO_LASH_SECRET'}) is shorter than ${LEAST} characters.`,
    );
  return secret;
}
