import type { BuildWrite } from '@zero-lash/contract/builds';
import type { newConditions } from '@zero-lash/contract/measuring';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { written } from '../builds/course.ts';
import { whenTaken, type Hand } from '../builds/hand.ts';
import { readConditions } from './rounds.ts';
import { takeUpOpenRound } from './takeUpRound.ts';

/** Keeps what a round is taken under; what was said before stays on its record. */
export async function addConditions(
  db: Knex,
  roundId: string,
  { engineTempC, hoursSinceRun, condition, takenAt }: z.output<typeof newConditions>,
  hand: Hand,
): Promise<BuildWrite> {
  const { build, openedAt } = await takeUpOpenRound(db, roundId);
  await db('round_conditions').insert({
    id: hand.key,
    round_id: roundId,
    engine_temp_c: engineTempC,
    hours_since_run: hoursSinceRun,
    condition,
    by: hand.personId,
    at: whenTaken(takenAt, hand, openedAt),
  });
  const [row] = await readConditions(db, build.id, hand.key);
  return written(build, { kind: 'conditions', row: row! });
}
