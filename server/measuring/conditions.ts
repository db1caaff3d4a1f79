import type { BuildView } from '@zero-lash/contract/builds';
import type { RoundConditions } from '@zero-lash/contract/measuring';
import type { Knex } from 'knex';
import { viewBuild } from '../builds/view.ts';
import { lockRound } from './lockRound.ts';

/** Keeps what a round is taken under; what was said before stays on its record. */
export async function setConditions(
  db: Knex,
  roundId: string,
  conditions: RoundConditions,
  personId: string,
): Promise<BuildView> {
  const round = await lockRound(db, roundId);
  const said = {
    engine_temp_c: conditions.engineTempC,
    hours_since_run: conditions.hoursSinceRun,
    condition: conditions.condition ?? null,
  };
  await db('rounds').where({ id: roundId }).update(said);
  await db('round_conditions').insert({ ...said, round_id: roundId, by: personId });
  return viewBuild(db, round.buildId);
}
