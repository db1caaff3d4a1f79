import type { BuildWrite, TickRow } from '@zero-lash/contract/builds';
import type { newTurning } from '@zero-lash/contract/turning';
import { bareHeld, toolsIn, crankHeldBy } from '@zero-lash/core/builds';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { written } from '../builds/lock.ts';
import { whenTaken, type WriteContext } from '../plugins/writeContext.ts';
import { isAhead } from '../clock.ts';
import { Refusal } from '../plugins/errors.ts';
import { readSettings } from '../setting/read.ts';
import { findRevision } from '../sheets/read.ts';
import { readTurning } from '../measuring/rounds.ts';
import { lockOpenRound } from '../measuring/lockRound.ts';

/** Keeps where the crank is in a round, and which stops are done; what was said last holds, whichever came in first. */
export async function setTurning(
  db: Knex,
  roundId: string,
  { takenAt, ...turning }: z.output<typeof newTurning>,
  context: WriteContext,
): Promise<BuildWrite> {
  const { build, openedAt, turnSaidAt } = await lockOpenRound(db, roundId);
  const saidAt = whenTaken(takenAt, context, openedAt);
  await refuseHeldDown(db, {
    buildId: build.id,
    revisionId: build.revisionId,
    roundId,
    at: turning.at,
    saidAt,
  });
  if (saidAt >= turnSaidAt || isAhead(turnSaidAt))
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

interface Turned {
  readonly buildId: string;
  readonly revisionId: string;
  readonly roundId: string;
  readonly at: number | null;
  readonly saidAt: Date;
}

/**
 * Refuses to have the crank turned while a tool holds a valve down.
 *
 * @throws Refusal `tool_in`
 */
async function refuseHeldDown(db: Knex, { buildId, revisionId, roundId, at, saidAt }: Turned): Promise<void> {
  if (at === null || (await readTurning(db, roundId))?.at === at) return;
  const ticks = (await db('stage_ticks')
    .where({ build_id: buildId, done: true })
    .where('at', '<=', saidAt)
    .select('stage', { check: 'check_key' }, 'done')) as Pick<TickRow, 'stage' | 'check' | 'done'>[];
  const settings = (await readSettings(db, buildId)).filter(
    (each) => Date.parse(each.at) <= saidAt.getTime(),
  );
  const sheet = await findRevision(db, revisionId);
  const bare = bareHeld({
    sheet,
    settings,
    ticks: ticks.map((each) => ({ ...each, at: saidAt.toISOString() })),
  });
  const [held] = crankHeldBy({ heldDown: toolsIn(ticks), bareHeld: bare });
  if (held) throw new Refusal('tool_in', { detail: held.text, points: [...held.points] });
}
