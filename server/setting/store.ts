import type { newSetting } from '@zero-lash/contract/setting';
import { tenthsFromMm } from '@zero-lash/core/length';
import { lashPoints, meansFor } from '@zero-lash/core/sheets';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { viewBuild } from '../builds/view.ts';
import { Refusal } from '../plugins/errors.ts';
import { limitsAt } from '../sheets/limitsAt.ts';

/** Refuses to have turned what is set by a graded piece, or fitted one where there is only a screw. */
async function refuseOtherMeans(
  db: Knex,
  revisionId: string,
  { point, kind }: z.output<typeof newSetting>,
): Promise<void> {
  if (kind === 'left') return;
  const { pattern } = await db('sheet_revisions').where({ id: revisionId }).first('pattern');
  const { role } = lashPoints(pattern).find(({ key }) => key === point)!;
  const { kind: means } = meansFor(pattern, role);
  const turns = means === 'screw' || means === 'pivot-nut';
  if (turns === (kind === 'turned')) return;
  throw new Refusal('other_means', {
    detail: turns
      ? `${point} is set by a screw: say how far it was turned.`
      : `${point} is set by a graded piece: say which was taken out and which was fitted.`,
    fields: [{ path: 'kind', message: 'is not how this point is set' }],
  });
}

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
  await refuseOtherMeans(db, build.revision_id, input);
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
