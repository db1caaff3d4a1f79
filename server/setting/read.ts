import type { Setting } from '@zero-lash/contract/setting';
import type { Knex } from 'knex';
import { mmOrNull } from '../length.ts';

/** What is set at each point of a build; one setting, standing or not, where it is named. */
export async function readSettings(db: Knex, buildId: string, id?: string): Promise<Setting[]> {
  const rows = await db('settings as s')
    .join('people as p', 'p.id', 's.by')
    .where('s.build_id', buildId)
    .where(id === undefined ? { 's.superseded': false } : { 's.id': id })
    .select(
      's.id',
      's.point',
      's.kind',
      's.degrees',
      's.installed',
      's.fitted',
      's.mark',
      's.note',
      's.piece_from as from',
      's.piece_to as to',
      's.piece_giver as giver',
      's.cause',
      'p.name as by',
      's.at',
      's.superseded',
    );
  return rows.map((row) => ({
    ...row,
    // as text, to the millisecond, as everything compares it
    at: row.at.toISOString(),
    installed: mmOrNull(row.installed),
    fitted: mmOrNull(row.fitted),
  }));
}
