import type { Person } from '@zero-lash/contract/people';
import type { Knex } from 'knex';
import { NO_PASSPHRASE } from '../plugins/passphrase.ts';

/** A name is not longer. */
const MOST_NAME = 60;
const OF_SHOP = ', of ';

/**
 * Knows those of another shop who did something on an engine that came from there, under the ids they have there: by name and shop,
 * signed out for good, and never taken for anybody of ours of the same name. However many they are, they are asked after and
 * written at once, and no passphrase is worked out for who has none.
 *
 * @returns the names of those who were not known here, as they are known from now on
 * @example await knowStrangers(db, [{ id, name: 'Ada Quill' }], 'Head works, Lower Overmere', lead) // ['Ada Quill, of Head works, Lower Overmere']
 */
export async function knowStrangers(
  db: Knex,
  people: readonly Pick<Person, 'id' | 'name'>[],
  shop: string,
  by: string,
): Promise<string[]> {
  const here = (await db('people').select('id', db.raw('lower(name) as name'))) as Pick<
    Person,
    'id' | 'name'
  >[];
  const ids = new Set(here.map(({ id }) => id));
  const names = new Set(here.map(({ name }) => name));
  const strangers = people
    .filter(({ id }) => !ids.has(id))
    .map(({ id, name }) => {
      // who was a stranger there already keeps the shop they are of
      const full = (name.includes(OF_SHOP) ? name : `${name}${OF_SHOP}${shop}`).slice(0, MOST_NAME);
      // two of one name and shop are told apart by what is theirs alone
      const own = names.has(full.toLowerCase()) ? `${full.slice(0, MOST_NAME - 9)} ${id.slice(0, 8)}` : full;
      names.add(own.toLowerCase());
      return { id, name: own, role: 'viewer', active: false } as const;
    });
  if (strangers.length === 0) return [];
  await db('people').insert(strangers.map((person) => ({ ...person, passphrase_hash: NO_PASSPHRASE })));
  await db('people_changes').insert(
    strangers.map(({ id, ...after }) => ({
      ...{ person_id: id, before: null, after: JSON.stringify(after), passphrase_set: false, by },
    })),
  );
  return strangers.map(({ name }) => name);
}
