import type { WearOfBuild } from '@zero-lash/contract/wear';
import type { Knex } from 'knex';
import { readEntries } from '../entries/read.ts';
import { Refusal } from '../plugins/errors.ts';

/**
 * Reads what was measured of an engine build by build, oldest first, with how far it had run when the first of it was
 * written. Builds that were abandoned say nothing.
 */
export async function readWearOfEngine(db: Knex, engineId: string): Promise<WearOfBuild[]> {
  const engine = await db('engines').where({ id: engineId }).first('running');
  if (!engine) throw new Refusal('not_found', { detail: 'There is no such engine.' });
  const { rows } = await db.raw(
    `select b.id, b.number, coalesce(
         (select u.running from usages u
           where u.engine_id = b.engine_id and u.struck_at is null and u.read_at <= w.first_at order by u.read_at desc, u.id desc limit 1),
         e.running) as running
       from builds b
       join engines e on e.id = b.engine_id
       join lateral (select min(at) as first_at from build_entries where build_id = b.id and room = 'wear') w
         on w.first_at is not null
       where b.engine_id = ? and b.abandoned_at is null
       order by b.number`,
    [engineId],
  );
  const builds: WearOfBuild[] = [];
  for (const { id, number, running } of rows)
    builds.push({
      buildId: id,
      number,
      running: Number(running),
      entries: await readEntries(db, id, 'wear'),
    });
  return builds;
}
