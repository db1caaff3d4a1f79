import type { PastReading } from '@zero-lash/contract/measuring';
import type { Knex } from 'knex';
import { gapInMm, JUDGED_BY, limitsInMm, parseReading } from './rounds.ts';

/** The readings a point had in a round, newest first, with what superseded what and why. */
export async function historyOf(db: Knex, roundId: string, point: string): Promise<PastReading[]> {
  const rows = await db('readings as g')
    .join('people as p', 'p.id', 'g.by')
    .leftJoin('instruments as i', 'i.id', 'g.instrument_id')
    .leftJoin('readings as n', 'n.supersedes', 'g.id')
    .leftJoin('people as np', 'np.id', 'n.by')
    .where({ 'g.round_id': roundId, 'g.point': point })
    .orderBy([
      { column: 'g.taken_at', order: 'desc' },
      { column: 'g.at', order: 'desc' },
    ])
    .select(
      'g.id',
      'g.as_typed as asTyped',
      'g.reading',
      'g.format',
      'g.verdict',
      'g.on_limit as onLimit',
      ...JUDGED_BY,
      'p.name as by',
      'g.taken_at as takenAt',
      'g.reason',
      'g.crank_angle as crankAngle',
      'g.off_base as offBase',
      'i.name as instrument',
      'g.blind',
      'g.before_lock as beforeLock',
      'np.name as supersededBy',
      'n.reason as supersededWhy',
    );
  return rows.map(({ reading, format, min, max, allowOver, ...row }) => ({
    ...row,
    ...gapInMm(parseReading(format, reading)),
    limits: limitsInMm({ min, max, allowOver }),
  }));
}
