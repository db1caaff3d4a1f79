import type { NewPerson, Person, PersonChange, Shop, ShopChange } from '@zero-lash/contract/people';
import type { Knex } from 'knex';
import { Refusal } from '../plugins/errors.ts';
import { hashPassphrase } from './passphrase.ts';

const COLUMNS = ['id', 'name', 'role', 'active', 'version'] as const;

export function listPeople(db: Knex): Promise<Person[]> {
  return db('people').select(COLUMNS).orderByRaw('active desc, lower(name)');
}

export async function findForSignIn(
  db: Knex,
  name: string,
): Promise<(Person & { passphraseHash: string }) | null> {
  const row = await db('people')
    .whereRaw('lower(name) = lower(?)', [name])
    .where({ active: true })
    .first([...COLUMNS, 'passphrase_hash as passphraseHash']);
  return row ?? null;
}

async function refuseTaken(db: Knex, name: string, own: string | null): Promise<void> {
  const taken = await db('people').whereRaw('lower(name) = lower(?)', [name]).first('id');
  if (taken && taken.id !== own)
    throw new Refusal('name_taken', {
      detail: `There is a ${name} already.`,
      fields: [{ path: 'name', message: 'is taken' }],
    });
}

export async function addPerson(db: Knex, person: NewPerson): Promise<Person> {
  await refuseTaken(db, person.name, null);
  const [row] = await db('people')
    .insert({
      name: person.name,
      role: person.role,
      passphrase_hash: await hashPassphrase(person.passphrase),
    })
    .returning([...COLUMNS]);
  return row as Person;
}

/** Changes a person. A shop never stays without a lead: two who make each other something else do so one by one. */
export async function changePerson(db: Knex, id: string, change: PersonChange): Promise<Person> {
  await db('people').where({ role: 'lead', active: true }).orderBy('id').forUpdate().select('id');
  const current = await db('people').where({ id }).forUpdate().first(COLUMNS);
  if (!current) throw new Refusal('not_found');
  if (current.version !== change.version) throw new Refusal('stale', { current });
  if (change.name) await refuseTaken(db, change.name, id);
  const [row] = await db('people')
    .where({ id })
    .update({
      name: change.name ?? current.name,
      role: change.role ?? current.role,
      active: change.active ?? current.active,
      version: current.version + 1,
      ...(change.passphrase ? { passphrase_hash: await hashPassphrase(change.passphrase) } : {}),
    })
    .returning([...COLUMNS]);
  const lead = await db('people').where({ role: 'lead', active: true }).first('id');
  if (!lead) throw new Refusal('last_lead');
  if (change.passphrase || change.active === false) await db('sessions').where({ person_id: id }).delete();
  return row as Person;
}

export async function readShop(db: Knex): Promise<Shop> {
  return (await db('shop').first('name', 'unit', 'zone', 'version')) as Shop;
}

export async function changeShop(db: Knex, change: ShopChange): Promise<Shop> {
  const current = await readShop(db);
  const [row] = await db('shop')
    .where({ version: change.version })
    .update({ name: change.name, unit: change.unit, version: change.version + 1 })
    .returning(['name', 'unit', 'zone', 'version']);
  if (!row) throw new Refusal('stale', { current });
  return row as Shop;
}

const FREE_FAILURES = 5;
const MEMORY_MINUTES = 15;

/** Seconds a name must wait at an address after its wrong passphrases, doubling from the sixth; 0 while it may try. */
export async function secondsToWait(db: Knex, name: string, address: string): Promise<number> {
  const row = await db('sign_in_failures')
    .where({ name: name.toLowerCase(), address })
    .whereRaw(`at > now() - interval '${MEMORY_MINUTES} minutes'`)
    .first(
      db.raw('count(*)::int as failures'),
      db.raw('extract(epoch from now() - max(at))::float as since'),
    );
  const failures = row?.failures ?? 0;
  if (failures < FREE_FAILURES) return 0;
  const pause = Math.min(300, 5 * 2 ** (failures - FREE_FAILURES));
  return Math.max(0, Math.ceil(pause - row.since));
}

export async function noteFailure(db: Knex, name: string, address: string): Promise<void> {
  await db('sign_in_failures').insert({ name: name.toLowerCase(), address });
}

export async function forgetFailures(db: Knex, name: string, address: string): Promise<void> {
  await db('sign_in_failures').where({ name: name.toLowerCase(), address }).delete();
}
