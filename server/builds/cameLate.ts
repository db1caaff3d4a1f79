import type { BuildHead } from '@zero-lash/contract/builds';
import type { StageKey } from '@zero-lash/core/builds';
import { formatLength, tenthsFromMm, type ShopUnit } from '@zero-lash/core/length';
import { VERDICT_WORDS, type Verdict } from '@zero-lash/core/measuring';
import { settingInWords } from '@zero-lash/core/setting';
import type { Knex } from 'knex';
import type { Tables } from 'knex/types/tables.js';
import { mmOrNull } from '../length.ts';
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
    `select w.what, w.point, w.row, p.name as by, w.at as "takenAt", w.came as "cameAt" from sign_offs s
       join lateral (
         select 'reading' as what, g.point, jsonb_build_object('asTyped', g.as_typed, 'verdict', g.verdict) as row, g.by,
             g.taken_at as at, g.at as came
           from readings g join rounds r on r.id = g.round_id where r.build_id = s.build_id and r.kind <> 'recheck'
         union all select 'setting', t.point, to_jsonb(t), t.by, t.at, t.came_at from settings t where t.build_id = s.build_id
         union all select e.room, null, null, e.by, e.at, e.came_at from build_entries e
           where e.build_id = s.build_id and e.room <> 'ran'
       ) w on w.came > s.at and w.at <= s.at
       join people p on p.id = w.by
      where s.build_id = ? order by w.came desc limit ${MOST_LATE}`,
    [buildId],
  );
  const shop = await db('shop').first('unit');
  return (rows as LateRow[]).map(({ row, takenAt, cameAt, ...late }) => ({
    ...late,
    said: saidOf(late.what, row, shop?.unit ?? 'mm'),
    takenAt: takenAt.toISOString(),
    cameAt: cameAt.toISOString(),
  }));
}

type Late = BuildHead['late'][number];
/** What came in late, with the columns of its row that say what it was. */
interface LateRow extends Omit<Late, 'said' | 'takenAt' | 'cameAt'> {
  readonly row: unknown;
  readonly takenAt: Date;
  readonly cameAt: Date;
}

/** What came in late in words: how a reading was typed and judged, or how a point was set. */
function saidOf(what: Late['what'], row: unknown, unit: ShopUnit): string {
  if (what === 'reading') {
    const { asTyped, verdict } = row as { readonly asTyped: string; readonly verdict: Verdict };
    return `${asTyped}, ${VERDICT_WORDS[verdict]}`;
  }
  if (what !== 'setting') return '';
  const { kind, degrees, installed, fitted, mark, note } = row as Tables['settings'];
  const mm = { installed: mmOrNull(installed), fitted: mmOrNull(fitted) };
  return settingInWords({ kind, degrees, ...mm, mark, note }, (each) =>
    formatLength(tenthsFromMm(each), unit),
  );
}
