import type { RoundKind, StageKey } from '@zero-lash/core/builds';
import type { Knex } from 'knex';
import { Refusal } from '../plugins/errors.ts';

/** Finds an open round for a write, with its build locked: no stage moves while something is measured. */
export async function lockRound(
  db: Knex,
  id: string,
): Promise<{ buildId: string; revisionId: string; kind: RoundKind; stage: StageKey; openedAt: Date }> {
  await db('builds')
    .whereIn('id', db('rounds').where({ id }).select('build_id'))
    .forNoKeyUpdate()
    .first('id');
  const round = await db('rounds as r')
    .join('builds as b', 'b.id', 'r.build_id')
    .where('r.id', id)
    .first(
      'r.build_id as buildId',
      'r.revision_id as revisionId',
      'r.kind',
      'r.opened_at as openedAt',
      'r.closed_at',
      'b.stage',
      'b.closed_at as buildClosed',
    );
  if (!round) throw new Refusal('not_found', { detail: 'There is no such round.' });
  if (round.buildClosed) throw new Refusal('build_closed');
  if (round.closed_at) throw new Refusal('round_closed');
  return round;
}
