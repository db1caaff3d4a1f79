import type { BuildView } from '@zero-lash/contract/builds';
import type { Turning } from '@zero-lash/contract/turning';
import type { Knex } from 'knex';
import { viewBuild } from '../builds/view.ts';
import { lockRound } from '../measuring/lockRound.ts';

/** Keeps where the crank is in a round, and which stops are done. */
export async function setTurning(db: Knex, roundId: string, turning: Turning): Promise<BuildView> {
  const round = await lockRound(db, roundId);
  await db('rounds')
    .where({ id: roundId })
    .update({
      turn_school: turning.school,
      turn_at: turning.at,
      turn_done: JSON.stringify(turning.done),
    });
  return viewBuild(db, round.buildId);
}
