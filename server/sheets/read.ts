import { z } from 'zod';
import { pattern as patternSchema } from '@zero-lash/contract/pattern';
import {
  sheetBody,
  sheetInFile,
  type SheetRevision,
  type SheetSummary,
  type WearLimit,
  sheetFile,
  type SheetFile,
} from '@zero-lash/contract/sheets';
import { mmFromTenths } from '@zero-lash/core/length';
import { rolesOf } from '@zero-lash/core/sheets';
import { LIMIT_KINDS } from '@zero-lash/core/wear';
import type { Knex } from 'knex';
import { mmOrNull } from '../length.ts';
import { dayIn, shopZone } from '../clock.ts';
import { Refusal } from '../plugins/errors.ts';
import { stored } from '../stored.ts';

/** Limits that were written down before they had a place, a band and a source of their own. */
function completed(limits: readonly Partial<WearLimit>[]): WearLimit[] {
  return limits.map((limit) => {
    const said = {
      place: '',
      nominal: null,
      limit: null,
      min: null,
      max: null,
      source: '',
      ...limit,
    } as WearLimit;
    if (LIMIT_KINDS[said.part].form !== 'band' || said.limit === null || said.nominal === null) return said;
    const ends = [said.nominal, said.limit];
    return { ...said, nominal: null, limit: null, min: Math.min(...ends), max: Math.max(...ends) };
  });
}

const parsePattern = stored('a pattern', { 1: patternSchema });

/** A revision, and whether nothing changes it any more. */
interface ReadRevision {
  readonly revision: SheetRevision;
  readonly settled: boolean;
}

/** Reads revisions with their limits; `narrow` says which. */
async function readRevisions(db: Knex, narrow: (query: Knex.QueryBuilder) => void): Promise<ReadRevision[]> {
  const query = db('sheet_revisions as r')
    .join('sheets as s', 's.id', 'r.sheet_id')
    .join('people as e', 'e.id', 'r.entered_by')
    .leftJoin('people as c', 'c.id', 'r.checked_by')
    .leftJoin('people as second', 'second.id', 'r.read_by')
    .select(
      'r.id',
      'r.sheet_id as sheetId',
      's.name',
      's.maker',
      'r.number',
      'r.status',
      'r.pattern',
      'r.format',
      // what this transaction reads of its own may still be rolled back
      db.raw(`coalesce(r.published_at < now(), false)
        and r.xmin is distinct from pg_current_xact_id_if_assigned()::xid as settled`),
      'r.condition',
      'r.temperature',
      'r.usage_unit as usageUnit',
      'r.limits_to_come as limitsToCome',
      'r.system',
      'r.recheck_plan as recheckPlan',
      'r.source',
      'r.second_source as secondSource',
      'r.pictures',
      'r.origins',
      'r.notes',
      'r.wear_limits as wearLimits',
      'r.torques',
      'r.wanted',
      'r.piece_charts as pieceCharts',
      'r.assembly',
      'r.run_in as runIn',
      'r.version',
      'e.name as enteredBy',
      'c.name as checkedBy',
      db.raw(
        "(select coalesce(json_agg(w.name), '[]') from people w where w.id = any(r.writers)) as writers",
      ),
      'second.name as readBy',
      'r.published_at as publishedAt',
      db.raw(`(
        select coalesce(json_agg(json_build_object('role', l.role, 'min', l.min_tenths, 'max', l.max_tenths,
          'figure', l.figure_tenths, 'also', l.also, 'asWritten', l.as_written, 'allowance', case when l.allow_over_tenths is not null
            then json_build_object('over', l.allow_over_tenths, 'why', l.allow_over_why) end) order by l.role desc), '[]')
        from sheet_limits l where l.revision_id = r.id
      ) as limits`),
    )
    .orderBy('r.number', 'desc');
  narrow(query);
  const rows = (await query) as (SheetRevision & {
    publishedAt: Date | null;
    format: number;
    settled: boolean;
  })[];
  return rows.map(({ format, settled, ...row }) => ({
    settled,
    revision: {
      ...row,
      pattern: parsePattern(format, row.pattern),
      wearLimits: completed(row.wearLimits),
      limits: orderLikePattern(row).map((limit) => ({
        ...limit,
        min: mmOrNull(limit.min),
        max: mmOrNull(limit.max),
        figure: mmOrNull(limit.figure),
        allowance: limit.allowance && { ...limit.allowance, over: mmFromTenths(limit.allowance.over) },
      })),
      publishedAt: row.publishedAt?.toISOString() ?? null,
    },
  }));
}

function orderLikePattern({ pattern, limits }: Pick<SheetRevision, 'pattern' | 'limits'>) {
  const order = rolesOf(pattern);
  return [...limits].sort((a, b) => order.indexOf(a.role) - order.indexOf(b.role));
}

/** Published revisions as they were read: nothing changes them any more, but the names of those who wrote them and who read it second. */
const published = new Map<string, { readonly revision: SheetRevision; readonly until: number }>();
const MOST_KEPT = 500;
const KEPT_MS = 60_000;

export async function findRevision(db: Knex, id: string): Promise<SheetRevision> {
  const known = published.get(id);
  if (known && known.until > Date.now()) return known.revision;
  const [read] = await readRevisions(db, (query) => query.where('r.id', id));
  if (!read) throw new Refusal('not_found', { detail: 'There is no such spec sheet.' });
  const { revision, settled } = read;
  if (settled) {
    published.delete(id);
    if (published.size >= MOST_KEPT) published.delete(published.keys().next().value!);
    published.set(id, { revision, until: Date.now() + KEPT_MS });
  }
  return revision;
}

/** A revision as it is now, whatever was kept of it. */
export function readAfresh(db: Knex, id: string): Promise<SheetRevision> {
  published.delete(id);
  return findRevision(db, id);
}

/**
 * The newest published revision of a sheet; undefined where none is yet.
 *
 * @throws Refusal `not_found` where there is no such sheet
 */
export async function newestPublished(db: Knex, sheetId: string): Promise<SheetRevision | undefined> {
  const row = await db('sheet_revisions')
    .where({ sheet_id: sheetId, status: 'published' })
    .orderBy('number', 'desc')
    .first('id');
  if (row) return findRevision(db, row.id);
  if (!(await db('sheets').where({ id: sheetId }).first('id')))
    throw new Refusal('not_found', { detail: 'There is no such spec sheet.' });
  return undefined;
}

/** Every revision of a sheet, newest first. */
export async function findSheet(db: Knex, sheetId: string): Promise<SheetRevision[]> {
  const revisions = await readRevisions(db, (query) => query.where('r.sheet_id', sheetId));
  if (revisions.length === 0) throw new Refusal('not_found', { detail: 'There is no such spec sheet.' });
  return revisions.map(({ revision }) => revision);
}

/** Whether a revision `r` was published by one who wrote at it, and nobody else has read it against its source; see `isUnread` of the core. */
export const UNREAD_SQL = `(r.status = 'published' and r.checked_by = any(r.writers) and r.read_by is null)`;

/** Every sheet, by its newest published revision. */
export async function listSheets(db: Knex): Promise<SheetSummary[]> {
  const { rows } = await db.raw(`
    select distinct on (s.id)
      s.id, r.id as "revisionId", s.name, s.maker, r.number, r.status,
      exists (select 1 from sheet_revisions d where d.sheet_id = s.id and d.status = 'draft') as drafting, ${UNREAD_SQL} as unread,
      r.pattern ->> 'layout' as layout, jsonb_array_length(r.pattern -> 'cylinders') as cylinders,
      coalesce(p.points, 0) as points,
      r.pattern -> 'means' ->> 'kind' as means, r.condition, r.usage_unit as "usageUnit",
      r.source ->> 'manual' as manual,
      coalesce(e.engines, 0) as engines,
      coalesce(r.published_at, r.created_at) as "updatedAt"
    from sheets s join sheet_revisions r on r.sheet_id = s.id
      left join (select revision_id, count(*)::int as points from lash_points group by 1) p on p.revision_id = r.id
      left join (select sheet_id, count(*)::int as engines from engines group by 1) e on e.sheet_id = s.id
    order by s.id, r.status = 'published' desc, r.status = 'foreign' desc, r.number desc`);
  const zone = await shopZone(db);
  return (rows as (Omit<SheetSummary, 'updatedOn'> & { updatedAt: Date })[])
    .map(({ updatedAt, ...sheet }) => ({ ...sheet, updatedOn: dayIn(zone, updatedAt) }))
    .sort((a, b) => `${a.maker} ${a.name}`.localeCompare(`${b.maker} ${b.name}`));
}

/** A revision as a file that another shop can read. */
export async function writeFile(db: Knex, id: string): Promise<SheetFile> {
  const { name, maker, ...revision } = await findRevision(db, id);
  return sheetFile.parse(z.encode(sheetInFile, { name, maker, body: sheetBody.parse(revision) }));
}
