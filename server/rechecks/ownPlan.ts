import type { EnginePlan, EngineView } from '@zero-lash/contract/engines';
import { RUNNING } from '@zero-lash/core/builds';
import type { Knex } from 'knex';
import { json } from '../storedJson.ts';
import { findRevision, newestPublished } from '../sheets/read.ts';

/** The plan of its own that an engine has now; null where it goes by its sheet. */
export async function readOwnPlan(
  db: Knex,
  engineId: string,
): Promise<(NonNullable<EnginePlan['own']> & Pick<EnginePlan, 'steps'>) | null> {
  const newest = await db('engine_plans as o')
    .join('people as p', 'p.id', 'o.by')
    .where('o.engine_id', engineId)
    .orderBy([
      { column: 'o.at', order: 'desc' },
      { column: 'o.id', order: 'desc' },
    ])
    .first('o.plan as steps', 'o.why', 'p.name as by', 'o.at');
  const steps = json('engine_plans.plan', newest?.steps ?? null);
  return steps && { ...newest, steps };
}

/** The sheet an engine is looked at by: that of the build it runs on, or the newest of its pattern. */
export async function sheetOf(db: Knex, engineId: string, sheetId: string) {
  const running = await db('builds as b')
    .where({ 'b.engine_id': engineId, 'b.closed_at': null, 'b.stage': RUNNING })
    .first('b.revision_id as id');
  return running ? findRevision(db, running.id) : newestPublished(db, sheetId);
}

/** What an engine is looked at by, and who gave it a plan of its own; null where no revision of its sheet is published yet. */
export async function readPlan(
  db: Knex,
  { id, sheetId }: Pick<EngineView, 'id' | 'sheetId'>,
): Promise<EnginePlan | null> {
  const own = await readOwnPlan(db, id);
  if (own) {
    const { steps, ...given } = own;
    return { steps, own: given };
  }
  const sheet = await sheetOf(db, id, sheetId);
  return sheet ? { steps: sheet.recheckPlan, own: null } : null;
}
