import type { Knex } from 'knex';
import { Refusal } from '../plugins/errors.ts';

/**
 * The limits of one lash point of a revision, in tenths of a micrometre.
 *
 * @throws Refusal `unknown_point` where it has no such point
 */
export async function limitsAt(db: Knex, revisionId: string, point: string) {
  const limits = await db('lash_points as p')
    .join('sheet_limits as l', (join) => join.on('l.revision_id', 'p.revision_id').on('l.role', 'p.role'))
    .where({ 'p.revision_id': revisionId, 'p.key': point })
    .first('l.min_tenths as min', 'l.max_tenths as max');
  if (!limits)
    throw new Refusal('unknown_point', {
      detail: `This engine has no lash point ${point}.`,
      fields: [{ path: 'point', message: 'is not on this engine' }],
    });
  return limits as { min: number; max: number };
}
