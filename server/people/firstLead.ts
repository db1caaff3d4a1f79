import { randomInt } from 'node:crypto';
import type { Knex } from 'knex';
import { hashPassphrase } from '../plugins/passphrase.ts';
import { addPerson } from './store.ts';

const WORDS =
  'anvil brass chisel dowel ember ferrule gasket hammer ingot journal cache lobe mandrel needle oiler pinion quench rivet spindle tappet'.split(
    ' ',
  );

/**
 * Gives an empty shop its first lead, with a passphrase made up on the spot, to be shown once.
 *
 * @returns null where somebody is there already
 */
export async function addFirstLead(db: Knex): Promise<{ name: string; passphrase: string } | null> {
  if (await db('people').first('id')) return null;
  const passphrase = Array.from({ length: 5 }, () => WORDS[randomInt(WORDS.length)]).join('-');
  const passphraseHash = await hashPassphrase(passphrase);
  await addPerson(db, { name: 'First lead', role: 'lead', passphraseHash });
  return { name: 'First lead', passphrase };
}
