import { randomBytes, randomUUID } from 'node:crypto';
import { chmodSync, linkSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';

const LEAST = 32;

/**
 * The shop's secret, which signs its cookies and keys what it hashes. It stands outside the database, so that a copy of
 * the database opens no door: in ZERO_LASH_SECRET, or in a file that is made where there is none. Several servers of one
 * shop are given the same.
 *
 * @throws Error when it is too short to be one
 */
export function shopSecret(file: string, given = process.env.ZERO_LASH_SECRET): string {
  const secret = given ?? readOrMake(file);
  if (secret.length < LEAST)
    throw new Error(
      `The shop's secret (${given === undefined ? file : 'ZERO_LASH_SECRET'}) is shorter than ${LEAST} characters.`,
    );
  return secret;
}

function readOrMake(file: string): string {
  try {
    return readFileSync(file, 'utf8').trim();
  } catch (error) {
    if ((error as { code?: string }).code !== 'ENOENT') throw error;
  }
  mkdirSync(dirname(file), { recursive: true });
  // linked into its place whole: of several servers that start at once, all read what one of them wrote
  const own = `${file}.${randomUUID()}`;
  writeFileSync(own, `${randomBytes(32).toString('hex')}\n`, { mode: 0o600 });
  chmodSync(own, 0o600);
  try {
    linkSync(own, file);
  } catch (error) {
    if ((error as { code?: string }).code !== 'EEXIST') throw error;
  } finally {
    rmSync(own);
  }
  return readFileSync(file, 'utf8').trim();
}
