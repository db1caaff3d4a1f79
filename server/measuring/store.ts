import type { ReadingRow, newReading } from '@zero-lash/contract/measuring';
import { moment } from '@zero-lash/contract/values';
import { stageMeasuring } from '@zero-lash/core/builds';
import { intervalOf, judge, type Reading } from '@zero-lash/core/measuring';
import { mayMeasurePoint } from '@zero-lash/core/turning';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { Refusal } from '../plugins/errors.ts';
import { limitsAt } from '../sheets/limitsAt.ts';
import { lockRound } from './lockRound.ts';
import { readReadings } from './rounds.ts';

/** Whether a reading was taken with its follower off the base circle, as far as the bench knew where the crank stood. */
async function isOffBase(
  db: Knex,
  revisionId: string,
  { point, crankAngle }: z.output<typeof newReading>,
): Promise<boolean> {
  if (crankAngle === null) return false;
  const { pattern } = await db('sheet_revisions').where({ id: revisionId }).first('pattern');
  return !mayMeasurePoint(pattern, point, crankAngle);
}

/** Whose hand a reading comes from, and how far the clock of their device goes ahead of this one, in ms. */
interface Hand {
  readonly personId: string;
  readonly clockAhead: number;
}

/**
 * Keeps a reading with the core's verdict. What was taken last stands; the other is superseded, not lost, whichever of
 * the two came in first.
 */
export async function addReading(
  db: Knex,
  roundId: string,
  input: z.output<typeof newReading>,
  { personId, clockAhead }: Hand,
): Promise<ReadingRow> {
  const round = await lockRound(db, roundId);
  if (stageMeasuring(round.kind).key !== round.stage) throw new Refusal('wrong_stage');
  const limits = await limitsAt(db, round.revisionId, input.point);
  const interval = intervalOf(input.reading as Reading);
  const { verdict, onLimit } = judge(interval, limits);
  await refuseStranger(db, input.instrumentId);
  const earlier = await db('readings as g')
    .join('people as p', 'p.id', 'g.by')
    .where({ round_id: roundId, point: input.point, superseded: false })
    .first('g.id', 'p.name as by', 'g.by as personId', 'g.taken_at as takenAt');
  if (input.blind && earlier?.personId === personId) throw new Refusal('own_second');
  const takenAt = whenTaken(input.takenAt, clockAhead, round.openedAt);
  const late = earlier !== undefined && takenAt < earlier.takenAt;
  if (earlier && !late) await db('readings').where({ id: earlier.id }).update('superseded', true);
  const [row] = await db('readings')
    .insert({
      round_id: roundId,
      revision_id: round.revisionId,
      point: input.point,
      reading: JSON.stringify(input.reading),
      as_typed: input.asTyped,
      lo: interval.lo,
      hi: interval.hi,
      min_tenths: limits.min,
      max_tenths: limits.max,
      verdict,
      on_limit: onLimit,
      doubt_kept: input.doubtKept,
      crank_angle: input.crankAngle,
      off_base: await isOffBase(db, round.revisionId, input),
      by: personId,
      supersedes: late ? null : (earlier?.id ?? null),
      superseded: late,
      reason: input.reason || (late ? LATE : whyAgain(earlier, input, personId)),
      instrument_id: input.instrumentId,
      taken_at: takenAt,
      blind: input.blind,
    })
    .returning('id');
  const [reading] = await readReadings(db, (query) => query.where('g.id', row.id), 'all');
  return reading!;
}

/** Why a reading stands in the place of an earlier one: a second look, two hands at once, or simply again. */
function whyAgain(
  earlier: { readonly id: string; readonly by: string; readonly personId: string } | undefined,
  { blind, over }: z.output<typeof newReading>,
  personId: string,
): string {
  if (!earlier) return '';
  if (blind) return 'second look, without seeing the first';
  if (over !== undefined && over !== earlier.id && earlier.personId !== personId)
    return `written while ${earlier.by} wrote this point too`;
  return 'measured again';
}

const LATE = 'taken before the one that stands, and came in after it';

/**
 * How far a device's clock goes ahead of this server's, in ms, by what it says as it sends.
 *
 * @param said the `device-clock` header; 0 where there is none that can be read
 */
export function clockAhead(said: string | string[] | undefined): number {
  const parsed = moment.safeParse(said);
  return parsed.success ? Date.parse(parsed.data) - Date.now() : 0;
}

/** When a reading was taken, by this server's clock: not in the future, and not before its round was opened. */
function whenTaken(takenAt: string | null, ahead: number, openedAt: Date): Date {
  const now = Date.now();
  const taken = takenAt === null ? now : Date.parse(takenAt) - ahead;
  return new Date(Math.max(openedAt.getTime(), Math.min(taken, now)));
}

async function refuseStranger(db: Knex, instrumentId: string | null): Promise<void> {
  if (instrumentId === null || (await db('instruments').where({ id: instrumentId }).first('id'))) return;
  throw new Refusal('not_found', { detail: 'There is no such instrument.' });
}
