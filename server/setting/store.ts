import type { newSetting } from '@zero-lash/contract/setting';
import { tenthsFromMm } from '@zero-lash/core/length';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { viewBuild } from '../builds/view.ts';
import { Refusal } from '../plugins/errors.ts';
import { limitsAt } from '../sheets/limitsAt.ts';

/** Records what was set at a point; an earlier setting of the build is superseded. */
export async function addSetting(
  db: Knex,
  buildId: string,
  input: z.output<typeof newSetting>,
  personId: string,
) {
  const build = await db('builds')
    .where({ id: buildId })
    .forNoKeyUpdate()
    .first('stage', 'closed_at', 'revision_id');
  if (!build) throw new Refusal('not_found', { detail: 'There is no such build.' });
  if (build.closed_at) throw new Refusal('build_closed');
  if (build.stage !== 'set') throw new Refusal('wrong_stage', { detail: 'Settings are recorded at Set.' });
  await limitsAt(db, build.revision_id, input.point);
  await db('settings')
    .where({ build_id: buildId, point: input.point, superseded: false })
    .update('superseded', true);
  await db('settings').insert({
    build_id: buildId,
    revision_id: build.revision_id,
    point: input.point,
    kind: input.kind,
    degrees: input.degrees,
    installed: input.installed === null ? null : tenthsFromMm(input.installed),
    fitted: input.fitted === null ? null : tenthsFromMm(input.fitted),
    mark: input.mark,
    note: input.note,
    by: personId,
  });
  return viewBuild(db, buildId);
}
