import type { BuildHead } from '@zero-lash/contract/builds';
import type { StageKey } from '@zero-lash/core/builds';
import type { Knex } from 'knex';
import { Refusal } from '../plugins/errors.ts';
import type { LockedBuild } from './lock.ts';

/** Of what came in late as much as is shown. */
const MOST_LATE = 60;

/**
 * Takes what was done at a stage that the build has left since, where it was done before that: a tablet was out of reach. It is
 * evidence of then, and kept as such.
 *
 * @param at when it was done
 * @throws Refusal the one that is named, where it was done after the build had gone on, or before it came there
 */
export async function takeLate(
  db: Knex,
  { id, stage }: Pick<LockedBuild, 'id' | 'stage'>,
  of: StageKey,
  at: Date,
  refusal: ConstructorParameters<typeof Refusal>,
): Promise<void> {
  if (stage === of) return;
  const left = await db('stage_moves')
    .where({ build_id: id, from_stage: of })
    .orderBy('at', 'desc')
    .first('at');
  if (left && at <= left.at) return;
  throw new Refusal(...refusal);
}

/** What came in after a build was signed off and was done before: the last that came first. */
export async function readLate(db: Knex, buildId: string): Promise<BuildHead['late']> {
  const { rows } = await db.raw(
    `select w.what, w.point, w.said, p.name as by, w.at as "takenAt", w.came as "cameAt" from sign_offs s
       join lateral (
         select 'reading' as what, g.point, g.as_typed || ', ' || g.verdict as said, g.by, g.taken_at as at, g.at as came
           from readings g join rounds r on r.id = g.round_id where r.build_id = s.build_id and r.kind <> 'recheck'
         union all select 'setting', t.point, t.kind, t.by, t.at, t.came_at from settings t where t.build_id = s.build_id
         union all select e.room, null, '', e.by, e.at, e.came_at from build_entries e
           where e.build_id = s.build_id and e.room <> 'ran'
       ) w on w.came > s.at and w.at <= s.at
       join people p on p.id = w.by
      where s.build_id = ? order by w.came desc limit ${MOST_LATE}`,
    [buildId],
  );
  return (
    rows as (Omit<BuildHead['late'][number], 'takenAt' | 'cameAt'> & { takenAt: Date; cameAt: Date })[]
  ).map((row) => ({ ...row, takenAt: row.takenAt.toISOString(), cameAt: row.cameAt.toISOString() }));
}
