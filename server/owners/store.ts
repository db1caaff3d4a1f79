import type { Owner, ownerChange } from '@zero-lash/contract/owners';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { Refusal } from '../plugins/errors.ts';

/** Every owner with how many engines are theirs, by name; one of them where it is named. */
export async function readOwners(db: Knex, id?: string): Promise<Owner[]> {
  const query = db('owners as o')
    .leftJoin('engines as e', (join) => join.on('e.owner_id', 'o.id').onNull('e.put_away_at'))
    .groupBy('o.id')
    .orderByRaw('lower(o.name)')
    .select(
      'o.id',
      'o.name',
      'o.email',
      'o.tells',
      'o.note',
      'o.version',
      db.raw('count(e.id)::int as engines'),
    );
  if (id !== undefined) query.where('o.id', id);
  return query;
}

/** Changes an owner as somebody saw it; every engine of theirs goes by the new name at once. */
export async function changeOwner(
  db: Knex,
  id: string,
  { version, email, ...fields }: z.output<typeof ownerChange>,
): Promise<Owner> {
  const taken = await db('owners')
    .whereRaw('lower(name) = lower(?)', [fields.name])
    .whereNot({ id })
    .first('id');
  if (taken)
    throw new Refusal('name_taken', {
      detail: `There is an owner called ${fields.name} already.`,
      fields: [{ path: 'name', message: 'is taken' }],
    });
  const updated = await db('owners')
    .where({ id, version })
    .update({ ...fields, ...(email === undefined ? {} : { email }), version: version + 1 });
  const [current] = await readOwners(db, id);
  if (!current) throw new Refusal('not_found', { detail: 'There is no such owner.' });
  if (updated === 0) throw new Refusal('stale', { current });
  return current;
}
