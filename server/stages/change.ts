import type { buildChange, BuildWrite, largerJob } from '@zero-lash/contract/builds';
import { jobOf, largerJobs, setsAsFound } from '@zero-lash/core/builds';
import { aimsOutside, type OwnAim } from '@zero-lash/core/setting';
import { resolveLimits, ROLE_WORDS } from '@zero-lash/core/sheets';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { Refusal } from '../plugins/errors.ts';
import { findRevision } from '../sheets/read.ts';
import { lockBuild, written, type LockedBuild } from '../builds/lock.ts';
import type { WriteContext } from '../plugins/writeContext.ts';
import { headChange, readHead } from '../builds/read.ts';

/**
 * Takes a build up for a write that is made on what somebody saw of it.
 *
 * @throws Refusal `stale` where somebody changed it since
 */
export async function lockAtVersion(db: Knex, id: string, version: number): Promise<LockedBuild> {
  const build = await lockBuild(db, id);
  await refuseStale(db, build, version);
  return build;
}

/** Refuses what was done on an older version of a build than there is. */
export async function refuseStale(
  db: Knex,
  { id, version }: Pick<LockedBuild, 'id' | 'version'>,
  seen: number,
): Promise<void> {
  if (version !== seen) throw new Refusal('stale', { current: (await readHead(db, id)).rows });
}

/**
 * Changes what a build is here for, or what it aims at.
 *
 * @throws Refusal `forbidden` or `invalid` where it would aim outside the maker's band without a lead, or without a reason
 */
export async function changeBuild(
  db: Knex,
  id: string,
  { version, complaint, aim, ownAims, aimReason }: z.output<typeof buildChange>,
  person: Pick<WriteContext, 'personId' | 'leads'>,
): Promise<BuildWrite> {
  const build = await lockAtVersion(db, id, version);
  const { complaint: said } = (await db('builds').where({ id }).first('complaint'))!;
  if (complaint === '' && said !== '')
    throw new Refusal('invalid', {
      detail: 'What the engine is here for was said, and is not unsaid: say it otherwise.',
      fields: [{ path: 'complaint', message: 'say in a line what the engine is here for' }],
    });
  if (aim === 'own' && build.setCold)
    throw new Refusal('invalid', {
      detail: 'It is set cold in this build, and figures of the shop’s own are for the hot engine.',
      fields: [{ path: 'aim', message: 'is for the hot engine' }],
    });
  if (aim === 'own') await refuseOutside(db, build, ownAims!, aimReason, person);
  await db('builds')
    .where({ id })
    .update({
      ...{ complaint, aim, version: version + 1 },
      ...(aim === 'own'
        ? { own_aims: JSON.stringify({ figures: ownAims, reason: aimReason }), aim_by: person.personId }
        : {}),
    });
  return written(build, await headChange(db, id));
}

/**
 * Makes a build's job a larger one, because something was found: its stages are there from then on, and what was measured is kept. Out
 * of one lap of finding and setting it goes to where the larger one finds: what was not felt yet is felt before anything is undone.
 *
 * @throws Refusal `job_smaller` where the other has not every stage of it and more; `already_signed_off`
 */
export async function enlargeJob(
  db: Knex,
  id: string,
  { version, job }: z.output<typeof largerJob>,
  personId: string,
): Promise<BuildWrite> {
  const build = await lockAtVersion(db, id, version);
  const { rows: head } = await readHead(db, id);
  if (head.signOff) throw new Refusal('already_signed_off');
  if (!largerJobs(head.job).some(({ key }) => key === job))
    throw new Refusal('job_smaller', {
      detail: `A ${jobOf(head.job).title.toLowerCase()} does not become a ${jobOf(job).title.toLowerCase()}.`,
    });
  const { stage } = head;
  const { findsAt } = jobOf(job);
  const to = setsAsFound(head.job, stage) && findsAt !== null ? findsAt : stage;
  if (to !== stage)
    await db('stage_moves').insert({ build_id: id, from_stage: stage, to_stage: to, by: personId });
  await db('builds')
    .where({ id })
    .update({
      ...{ job, version: version + 1 },
      ...(to === stage ? {} : { stage: to, stage_since: db.fn.now() }),
    });
  return written(build, await headChange(db, id));
}

/** Refuses an aim outside the maker's band that no lead stands for, or that nobody says why. */
async function refuseOutside(
  db: Knex,
  build: LockedBuild,
  own: readonly OwnAim[],
  reason: string,
  { leads }: Pick<WriteContext, 'leads'>,
): Promise<void> {
  const { limits: printed } = await findRevision(db, build.revisionId);
  const limits = resolveLimits(printed, build.singleRule);
  own.forEach((aimed, index) => {
    if (limits.every((each) => each.role !== aimed.role))
      throw new Refusal('invalid', {
        detail: `This sheet has no limits for ${ROLE_WORDS[aimed.role]}.`,
        fields: [{ path: `ownAims.${index}.role`, message: 'has no limits here' }],
      });
  });
  const outside = aimsOutside(limits, own);
  if (outside.length === 0) return;
  if (!leads)
    throw new Refusal('forbidden', {
      detail: `Only a lead aims outside the maker’s band: ${outside.map((each) => ROLE_WORDS[each.role]).join(', ')}.`,
    });
  if (reason === '')
    throw new Refusal('invalid', {
      detail: 'Say why it is aimed outside the maker’s band.',
      fields: [{ path: 'aimReason', message: 'say why' }],
    });
}
