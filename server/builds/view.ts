import type { BuildView } from '@zero-lash/contract/builds';
import type { Knex } from 'knex';
import { findEngine } from '../engines/read.ts';
import { readRounds } from '../measuring/rounds.ts';
import { Refusal } from '../plugins/errors.ts';
import { readRechecks } from '../rechecks/store.ts';
import { readSettings } from '../setting/read.ts';
import { findRevision } from '../sheets/read.ts';

/** Reads everything the bench sees of a build. */
export async function viewBuild(db: Knex, id: string): Promise<BuildView> {
  const build = await db('builds as b')
    .join('people as p', 'p.id', 'b.opened_by')
    .where('b.id', id)
    .first(
      'b.id',
      'b.engine_id',
      'b.revision_id',
      'b.number',
      'b.stage',
      'b.complaint',
      'b.aim',
      'b.version',
      'b.opened_at as openedAt',
      'p.name as openedBy',
      'b.closed_at as closedAt',
    );
  if (!build) throw new Refusal('not_found', { detail: 'There is no such build.' });
  const { engine_id: engineId, revision_id: revisionId, ...fields } = build;
  const by = (table: string, alias: string) =>
    db(`${table} as ${alias}`).join('people as p', 'p.id', `${alias}.by`).where(`${alias}.build_id`, id);
  const sheet = await findRevision(db, revisionId);
  const signOff = await by('sign_offs', 'o').first('p.name as by', 'o.at', 'o.usage', 'o.statement');
  return {
    ...fields,
    engine: await findEngine(db, engineId),
    sheet,
    ticks: await by('stage_ticks', 't').select('t.stage', 't.check_key as check', 'p.name as by', 't.at'),
    notes: await by('stage_notes', 'n')
      .orderBy('n.at')
      .select('n.id', 'n.stage', 'n.text', 'p.name as by', 'n.at'),
    rounds: await readRounds(db, id, sheet),
    settings: await readSettings(db, id),
    signOff: signOff ?? null,
    rechecks: await readRechecks(db, { build_id: id }),
  };
}
