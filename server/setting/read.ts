import type { Setting } from '@zero-lash/contract/setting';
import { mmFromTenths } from '@zero-lash/core/length';
import type { Knex } from 'knex';

const mmOrNull = (tenths: number | null) => (tenths === null ? null : mmFromTenths(tenths));

/** Reads what is set at each point of a build. */
export async function readSettings(db: Knex, buildId: string): Promise<Setting[]> {
  const rows = await db('settings as s')
    .join('people as p', 'p.id', 's.by')
    .where('s.build_id', buildId)
    .where('s.superseded', false)
    .select(
      's.id',
      's.point',
      's.kind',
      's.degrees',
      's.installed',
      's.fitted',
      's.mark',
      's.note',
      'p.name as by',
      's.at',
    );
  return rows.map((row) => ({
    ...row,
    installed: mmOrNull(row.installed),
    fitted: mmOrNull(row.fitted),
  }));
}
