import { randomUUID } from 'node:crypto';
import { chmodSync, linkSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';

/**
 * Reads a file that is made where there is none, for its owner's eyes only. It is linked into its place whole: of several
 * servers that start at once, all read what one of them wrote.
 *
 * @param make what is written into it, asked only where there is none
 */
export async function madeOnce(file: string, make: () => string | Promise<string>): Promise<string> {
  const there = readIfThere(file);
  if (there !== null) return there;
  mkdirSync(dirname(file), { recursive: true });
  const own = `${file}.${randomUUID()}`;
  writeFileSync(own, await make(), { mode: 0o600 });
  chmodSync(own, 0o600);
  try {
    linkSync(own, file);
  } catch (error) {
    if ((error as { code?: string }).code !== 'EEXIST') throw error;
  } finally {
    rmSync(own);
  }
  return readFileSync(file, 'utf8');
}

function readIfThere(file: string): string | null {
  try {
    return readFileSync(file, 'utf8');
  } catch (error) {
    if ((error as { code?: string }).code !== 'ENOENT') throw error;
    return null;
  }
}
