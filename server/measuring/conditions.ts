import type { BuildWrite } from '@zero-lash/contract/builds';
import type { newConditions } from '@zero-lash/contract/measuring';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { written } from '../builds/lock.ts';
import { whenTaken, type WriteContext } from '../plugins/writeContext.ts';
import { readConditions } from './rounds.ts';
import { lockOpenRound } from './lockRound.ts';

/** Keeps what a round is taken under; what was said before stays on its record. */
export async function addConditions(
  db: Knex,
  roundId: string,
  { engineTempC, hoursSinceRun, condition, takenAt }: z.output<typeof newConditions>,
  context: WriteContext,
): Promise<BuildWrite> {
  const { build, openedAt } = await lockOpenRound(db, roundId);
  await db('round_conditions').insert({
    id: context.key,
    round_id: roundId,
    engine_temp_c: engineTempC,
    hours_since_run: hoursSinceRun,
    condition,
    by: context.personId,
    at: whenTaken(takenAt, context, openedAt),
  });
  const [row] = await readConditions(db, build.id, context.key);
  return written(build, { kind: 'conditions', row: row! });
}
