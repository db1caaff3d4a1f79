import type { RoundKind } from '@zero-lash/core/builds';
import type { Knex } from 'knex';
import { lockByPart, type LockedBuild } from '../builds/lock.ts';
import { Refusal } from '../plugins/errors.ts';

/** A round that is locked for a write, with its build. */
export interface LockedRound {
  readonly id: string;
  readonly kind: RoundKind;
  readonly recheckId: string | null;
  readonly openedAt: Date;
  readonly closedAt: Date | null;
  readonly turnSaidAt: Date;
  /** the running figure it was measured at, and what the engine has run by now */
  readonly usage: number | null;
  readonly running: number;
  readonly build: LockedBuild;
}

/**
 * Locks a round for a write, with its build: no stage moves while something is measured.
 *
 * @throws Refusal `not_found` or `build_closed`
 */
export async function lockRound(db: Knex, id: string): Promise<LockedRound> {
  const build = await lockByPart(db, 'rounds', id);
  if (!build) throw new Refusal('not_found', { detail: 'There is no such round.' });
  if (build.closedAt) throw new Refusal('build_closed');
  return roundOf(db, build, id);
}

/** A round of a build that is locked already. */
export async function roundOf(db: Knex, build: LockedBuild, id: string): Promise<LockedRound> {
  const round = await db('rounds as r')
    .join('engines as e', 'e.id', db.raw('?', [build.engineId]))
    .where('r.id', id)
    .first(
      'r.id',
      'r.kind',
      'r.recheck_id as recheckId',
      'r.opened_at as openedAt',
      'r.closed_at as closedAt',
      'r.turn_said_at as turnSaidAt',
      'r.usage',
      'e.running',
    );
  return { ...round, build };
}

/** The same, of a round that is not closed. */
export async function lockOpenRound(db: Knex, id: string): Promise<LockedRound> {
  const round = await lockRound(db, id);
  if (round.closedAt) throw new Refusal('round_closed');
  return round;
}
