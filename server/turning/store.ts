import type { BuildWrite } from '@zero-lash/contract/builds';
import type { newTurning } from '@zero-lash/contract/turning';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { written } from '../builds/course.ts';
import { whenTaken, type Hand } from '../builds/hand.ts';
import { readTurning } from '../measuring/rounds.ts';
import { takeUpOpenRound } from '../measuring/takeUpRound.ts';

/** Keeps where the crank is in a round, and which stops are done; what was said last holds, whichever came in first. */
export async function setTurning(
  db: Knex,
  roundId: string,
  { takenAt, ...turning }: z.output<typeof newTurning>,
  hand: Hand,
): Promise<BuildWrite> {
  const { build, openedAt, turnSaidAt } = await takeUpOpenRound(db, roundId);
  const saidAt = whenTaken(takenAt, hand, openedAt);
  if (saidAt >= turnSaidAt)
    await db('rounds')
      .where({ id: roundId })
      .update({
        turn_school: turning.school,
        turn_at: turning.at,
        turn_done: JSON.stringify(turning.done),
        turn_said_at: saidAt,
      });
  return written(build, { kind: 'turning', row: (await readTurning(db, roundId))! });
}
