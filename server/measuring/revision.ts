import type { BuildWrite, newerRevision } from '@zero-lash/contract/builds';
import { heldAgainst } from '@zero-lash/core/builds';
import { intervalOf, judge, type Reading } from '@zero-lash/core/measuring';
import { allowedBy } from '@zero-lash/core/setting';
import { lashPoints, type Pattern } from '@zero-lash/core/sheets';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { written } from '../builds/lock.ts';
import { headChange, readHead } from '../builds/read.ts';
import { readRoom } from '../builds/registry.ts';
import { parseReading } from './rounds.ts';
import { Refusal } from '../plugins/errors.ts';
import { effectiveSheet } from '../sheets/effectiveSheet.ts';
import { limitsAt } from '../sheets/limitsAt.ts';
import { findRevision } from '../sheets/read.ts';
import { json } from '../storedJson.ts';
import { hollowsOf } from '../wear/hollows.ts';
import { lockAtVersion } from '../stages/change.ts';

const keysOf = (pattern: Pattern): string =>
  lashPoints(pattern)
    .map(({ key, role }) => `${key} ${role}`)
    .sort()
    .join();

/**
 * Puts a build that was opened before its book was here onto the revision that has the limits. What was read stays, and is judged now; the
 * shop's own rules that go with limits are taken as they stand today.
 *
 * @throws Refusal `revision_stays` where the build has its limits, or the revision is not a newer one of its sheet with the same points;
 * `sheet_not_published`
 * Rule: a build stays on the revision it was opened on; without limits it was judged by nothing yet.
 */
export async function goToRevision(
  db: Knex,
  id: string,
  { version, revisionId }: z.output<typeof newerRevision>,
): Promise<BuildWrite> {
  const build = await lockAtVersion(db, id, version);
  const [now, next] = [await findRevision(db, build.revisionId), await findRevision(db, revisionId)];
  if (!now.limitsToCome) throw new Refusal('revision_stays');
  if (next.status !== 'published') throw new Refusal('sheet_not_published');
  if (next.sheetId !== now.sheetId || next.number <= now.number)
    throw new Refusal('revision_stays', {
      detail: 'A build goes over to a newer revision of its own spec sheet only.',
    });
  if (keysOf(next.pattern) !== keysOf(now.pattern))
    throw new Refusal('revision_stays', {
      detail: `Revision ${next.number} has other lash points than this build was read by: abandon it, and book the engine in anew.`,
    });
  const shop = (await db('shop').first('allow_over', 'single_rule'))!;
  await db('builds')
    .where({ id })
    .update({
      revision_id: revisionId,
      version: version + 1,
      allow_over: JSON.stringify(allowedBy(next.limits, json('shop.allow_over', shop.allow_over))),
      single_rule: shop.single_rule && JSON.stringify(shop.single_rule),
    });
  await judgeReadings(db, id);
  return written(build, await headChange(db, id));
}

/** Judges what was read before there was anything to judge it by, once. */
async function judgeReadings(db: Knex, buildId: string): Promise<void> {
  const { rows: head } = await readHead(db, buildId);
  const sheet = effectiveSheet(await findRevision(db, head.revisionId), head);
  const hollows = await hollowsOf(db, buildId, sheet);
  const settings = await readRoom(db, buildId, 'settings');
  const rows = await db('readings as g')
    .join('rounds as r', 'r.id', 'g.round_id')
    .where('r.build_id', buildId)
    .whereNull('g.min_tenths')
    .select('g.id', 'g.point', 'g.reading', 'g.format', 'g.narrow_blade', 'r.kind');
  for (const row of rows) {
    const limits = limitsAt(sheet, row.point, heldAgainst(row.kind, row.point, settings));
    if (!limits) continue;
    const reading: Reading = parseReading(row.format, row.reading);
    const { verdict, onLimit } = judge(
      intervalOf(reading, !row.narrow_blade && hollows.has(row.point)),
      limits,
    );
    await db('readings')
      .where({ id: row.id })
      .update({
        ...{ min_tenths: limits.min, max_tenths: limits.max, allow_over_tenths: limits.allowOver ?? 0 },
        ...{ verdict, on_limit: onLimit },
      });
  }
}
