import type { BuildRowChange, BuildWrite } from '@zero-lash/contract/builds';
import type { JobKey, StageKey } from '@zero-lash/core/builds';
import type { Aim, AllowOver, OwnAim, SetCold } from '@zero-lash/core/setting';
import type { SingleRule } from '@zero-lash/core/sheets';
import type { Knex } from 'knex';
import { Refusal } from '../plugins/errors.ts';
import { json } from '../storedJson.ts';

/** A build that is locked for a write: nobody else writes in it until the transaction ends. */
export interface LockedBuild {
  readonly id: string;
  readonly seq: number;
  readonly job: JobKey;
  readonly stage: StageKey;
  readonly version: number;
  readonly openedAt: Date;
  readonly closedAt: Date | null;
  readonly revisionId: string;
  readonly engineId: string;
  /** how it departs from its sheet */
  readonly aim: Aim;
  readonly ownAims: { readonly figures: readonly OwnAim[] } | null;
  readonly allowOver: AllowOver[];
  readonly singleRule: SingleRule | null;
  readonly setCold: SetCold | null;
  /** after so many hours it is cold, where its sheet does not say */
  readonly coldHours: number;
}

const FIELDS = [
  'id',
  'seq',
  'job',
  'stage',
  'version',
  'opened_at as openedAt',
  'closed_at as closedAt',
  'revision_id as revisionId',
  'engine_id as engineId',
  'aim',
  'own_aims as ownAims',
  'allow_over as allowOver',
  'single_rule as singleRule',
  'set_cold as setCold',
  'cold_hours as coldHours',
];

/**
 * Locks a build for a write, and raises its `seq`, so that writes in one build come one after another and
 * are numbered without a gap. A write that is refused afterwards rolls the number back.
 *
 * @throws Refusal `not_found` or `build_closed`
 */
export async function lockBuild(db: Knex, id: string): Promise<LockedBuild> {
  const build = await lockEvenClosed(db, id);
  if (build.closedAt) throw new Refusal('build_closed');
  return build;
}

/** The same, of a build that may be closed: to open it again. */
export async function lockEvenClosed(db: Knex, id: string): Promise<LockedBuild> {
  const build = await raise(db, id);
  if (!build) throw new Refusal('not_found', { detail: 'There is no such build.' });
  return build;
}

/** The same, of the build that something in it belongs to; undefined where there is no such thing. */
export async function lockByPart(
  db: Knex,
  table: 'rounds' | 'rechecks',
  partId: string,
): Promise<LockedBuild | undefined> {
  return raise(db, db(table).where({ id: partId }).select('build_id'));
}

async function raise(db: Knex, id: string | Knex.QueryBuilder): Promise<LockedBuild | undefined> {
  const [build] = (await db('builds')
    .where('id', id as string)
    .increment('seq', 1)
    .returning(FIELDS)) as (Omit<LockedBuild, 'ownAims' | 'allowOver' | 'singleRule' | 'setCold'> & {
    setCold: unknown;
    ownAims: unknown;
    allowOver: unknown;
    singleRule: unknown;
  })[];
  return (
    build && {
      ...build,
      ownAims: json('builds.own_aims', build.ownAims),
      allowOver: json('builds.allow_over', build.allowOver),
      singleRule: json('builds.single_rule', build.singleRule),
      setCold: json('builds.set_cold', build.setCold),
    }
  );
}

/** What a write brought, its own row first, as it is answered and told. */
export function written(
  { id, seq }: Pick<LockedBuild, 'id' | 'seq'>,
  ...changes: BuildRowChange[]
): BuildWrite {
  return { build: id, seq, changes };
}
