import type { RanOfBuild } from '@zero-lash/contract/ran';
import type { Knex } from 'knex';
import { readEntries } from '../entries/read.ts';
import { Refusal } from '../plugins/errors.ts';

/** How an engine ran on the settings of each of its builds, the newest first; builds of which nothing was said are left out. */
export async function readRan(db: Knex, engineId: string): Promise<RanOfBuild[]> {
  if (!(await db('engines').where({ id: engineId }).first('id')))
    throw new Refusal('not_found', { detail: 'There is no such engine.' });
  const builds = (await db('builds as b')
    .leftJoin('sign_offs as s', 's.build_id', 'b.id')
    .where({ 'b.engine_id': engineId, 'b.abandoned_at': null })
    .orderBy('b.number', 'desc')
    .select('b.id', 'b.number', { signedAt: 's.at' })) as {
    id: string;
    number: number;
    signedAt: Date | null;
  }[];
  const all: RanOfBuild[] = [];
  for (const { id, number, signedAt } of builds) {
    const entries = await readEntries(db, id, 'ran');
    if (entries.length > 0)
      all.push({
        ...{ buildId: id, number, signedAt: signedAt?.toISOString() ?? null },
        entries: entries.map(({ by, at, lines }) => ({ by, at, lines })),
      });
  }
  return all;
}
