import type { DraftChange, NewSheet, SheetBody, SheetRevision } from '@zero-lash/contract/sheets';
import { tenthsFromMm } from '@zero-lash/core/length';
import { isUnread, lashPoints, originsOf, singleBandComplaint } from '@zero-lash/core/sheets';
import type { Knex } from 'knex';
import { tenthsOrNull } from '../length.ts';
import { Refusal } from '../plugins/errors.ts';
import { findRevision, findSheet, readAfresh } from './read.ts';
import { shopSingleRule } from './singleRule.ts';

/** Writes a new sheet with its first revision, a draft. */
export async function addSheet(
  db: Knex,
  { name, maker, body }: NewSheet,
  personId: string,
): Promise<SheetRevision> {
  await refuseTaken(db, { name, maker });
  const [sheet] = await db('sheets').insert({ name, maker }).returning('id');
  return findRevision(db, await addRevision(db, sheet!.id, 1, body, personId));
}

/** Writes the next revision of a published sheet, as a draft: one at a time. */
export async function reviseSheet(
  db: Knex,
  sheetId: string,
  body: SheetBody,
  personId: string,
): Promise<SheetRevision> {
  await db('sheets').where({ id: sheetId }).forNoKeyUpdate().first('id');
  const revisions = await findSheet(db, sheetId);
  const draft = revisions.find(({ status }) => status === 'draft');
  if (draft)
    throw new Refusal('draft_open', {
      detail: `${draft.enteredBy} is writing revision ${draft.number} already. Change that one, or have it published.`,
      current: draft,
    });
  return findRevision(db, await addRevision(db, sheetId, revisions[0]!.number + 1, body, personId));
}

/** Changes a draft; whoever changes it last is the one who entered it. */
export async function changeDraft(
  db: Knex,
  id: string,
  { name, maker, body, version }: DraftChange,
  personId: string,
): Promise<SheetRevision> {
  const locked = (await db('sheet_revisions').where({ id }).forNoKeyUpdate().first('sheet_id', 'status'))!;
  const draft = await findRevision(db, id);
  if (locked.status !== 'draft')
    throw new Refusal('fixed', { detail: 'This revision is published. Write a new one.' });
  if (draft.version !== version) throw new Refusal('stale', { current: draft });
  if (name !== draft.name || maker !== draft.maker) await renameSheet(db, draft, { name, maker });
  await db('lash_points').where({ revision_id: id }).delete();
  await db('sheet_limits').where({ revision_id: id }).delete();
  await db('sheet_revisions')
    .where({ id })
    .update({
      ...columnsOf(body),
      entered_by: personId,
      writers: db.raw('array_append(array_remove(writers, ?), ?)', [personId, personId]),
      version: version + 1,
    });
  await addParts(db, id, body);
  return findRevision(db, id);
}

async function renameSheet(
  db: Knex,
  draft: SheetRevision,
  names: { readonly name: string; readonly maker: string },
): Promise<void> {
  if (draft.number > 1)
    throw new Refusal('fixed', { detail: 'A sheet that was published keeps its name and its maker.' });
  await refuseTaken(db, names);
  await db('sheets').where({ id: draft.sheetId }).update(names);
}

async function refuseTaken(db: Knex, { name, maker }: { name: string; maker: string }): Promise<void> {
  const taken = await db('sheets').where({ name, maker }).first('id');
  if (taken)
    throw new Refusal('name_taken', {
      detail: `There is a sheet for the ${maker} ${name} already.`,
      fields: [{ path: 'name', message: 'is taken' }],
    });
}

/** Writes a revision as a draft, with its limits and the lash points its pattern has. */
async function addRevision(
  db: Knex,
  sheetId: string,
  number: number,
  body: SheetBody,
  personId: string,
): Promise<string> {
  const [revision] = await db('sheet_revisions')
    .insert({
      ...{ sheet_id: sheetId, number, status: 'draft', entered_by: personId, writers: [personId] },
      ...columnsOf(body),
    })
    .returning('id');
  await addParts(db, revision!.id, body);
  return revision!.id as string;
}

/** Where the figures are from that a sheet has: of one that is not there, nothing is said. */
const originsThere = (body: SheetBody): SheetBody['origins'] =>
  Object.fromEntries(originsOf(body).flatMap(({ key, origin }) => (origin ? [[key, origin]] : [])));

function columnsOf(body: SheetBody) {
  return {
    pattern: JSON.stringify(body.pattern),
    condition: body.condition,
    temperature: body.temperature && JSON.stringify(body.temperature),
    limits_to_come: body.limitsToCome,
    system: body.system,
    usage_unit: body.usageUnit,
    recheck_plan: JSON.stringify(body.recheckPlan),
    wear_limits: JSON.stringify(body.wearLimits),
    torques: JSON.stringify(body.torques),
    wanted: JSON.stringify(body.wanted),
    piece_charts: JSON.stringify(body.pieceCharts),
    assembly: JSON.stringify(body.assembly),
    run_in: JSON.stringify(body.runIn),
    source: JSON.stringify(body.source),
    second_source: body.secondSource && JSON.stringify(body.secondSource),
    pictures: JSON.stringify(body.pictures),
    origins: JSON.stringify(originsThere(body)),
    notes: body.notes,
  };
}

async function addParts(db: Knex, revisionId: string, body: SheetBody): Promise<void> {
  const rule = await shopSingleRule(db);
  const unbounded = body.limits.flatMap(({ role, figure, also }) =>
    [figure, ...also.map((each) => each.figure)].flatMap((each) => {
      const why = each === null ? null : singleBandComplaint(each, rule);
      return why === null ? [] : [{ path: 'limits', message: `${role}: ${why}` }];
    }),
  );
  if (unbounded.length > 0)
    throw new Refusal('invalid', { detail: 'A figure has no band.', fields: unbounded });
  const rows = body.limits.map(({ role, min, max, figure, also, asWritten, allowance }) => ({
    revision_id: revisionId,
    role,
    min_tenths: tenthsOrNull(min),
    max_tenths: tenthsOrNull(max),
    figure_tenths: tenthsOrNull(figure),
    also: JSON.stringify(also),
    as_written: asWritten,
    allow_over_tenths: allowance && tenthsFromMm(allowance.over),
    allow_over_why: allowance?.why ?? '',
  }));
  if (rows.length > 0) await db('sheet_limits').insert(rows);
  await db('lash_points').insert(
    lashPoints(body.pattern).map(({ key, cylinder, role }, ordinal) => ({
      revision_id: revisionId,
      key,
      cylinder,
      role,
      ordinal,
    })),
  );
}

/**
 * Publishes a draft, which fixes it for ever. Whoever wrote at it does not check it, as long as the shop has another
 * lead who can; and nobody publishes figures that were changed since they read them.
 */
export async function publishRevision(
  db: Knex,
  id: string,
  version: number,
  leadId: string,
): Promise<SheetRevision> {
  const draft = await db('sheet_revisions').where({ id }).forNoKeyUpdate().first('status', 'writers');
  if (!draft) throw new Refusal('not_found', { detail: 'There is no such spec sheet.' });
  if (draft.status !== 'draft') throw new Refusal('fixed', { detail: 'This revision is published already.' });
  if (draft.writers.includes(leadId)) await refuseOwnWord(db, leadId);
  const current = await findRevision(db, id);
  if (current.version !== version) throw new Refusal('stale', { current });
  // from now on the sheet itself says what is taken over its greatest: where it says nothing, nothing is
  await db('sheet_limits')
    .where({ revision_id: id, allow_over_tenths: null })
    .update({ allow_over_tenths: 0 });
  await db('sheet_revisions')
    .where({ id })
    .update({ status: 'published', checked_by: leadId, published_at: db.fn.now() });
  return findRevision(db, id);
}

/**
 * Says that a second person has held a published revision against its source, where whoever published it had written it.
 *
 * @throws Refusal `second_person` from one of its writers, `fixed` where it was read already or waits for nobody
 */
export async function readSecond(db: Knex, id: string, leadId: string): Promise<SheetRevision> {
  const row = await db('sheet_revisions').where({ id }).forNoKeyUpdate().first('writers');
  if (!row) throw new Refusal('not_found', { detail: 'There is no such spec sheet.' });
  if (!isUnread(await readAfresh(db, id)))
    throw new Refusal('fixed', { detail: 'This revision waits for no second reader.' });
  if (row.writers.includes(leadId))
    throw new Refusal('second_person', { detail: 'You wrote this sheet yourself: somebody else reads it.' });
  await db('sheet_revisions').where({ id }).update({ read_by: leadId, read_at: db.fn.now() });
  return readAfresh(db, id);
}

/** Days for which a lead whom the author put out of office themself still counts as one who can check. */
const STILL_COUNTS_DAYS = 30;

/** Refuses an author their own check where the shop has, or had until they saw to it, another lead. */
async function refuseOwnWord(db: Knex, leadId: string): Promise<void> {
  const other = await db('people').where({ role: 'lead', active: true }).whereNot({ id: leadId }).first('id');
  if (other)
    throw new Refusal('second_person', {
      detail: 'You wrote at this draft yourself: another lead checks it against the source and publishes it.',
    });
  const putOut = await db('people_changes as c')
    .join('people as p', 'p.id', 'c.person_id')
    .where('c.by', leadId)
    .whereNot('c.person_id', leadId)
    .whereRaw(`c.at > now() - interval '${STILL_COUNTS_DAYS} days'`)
    .whereRaw(`c.before @> '{"role": "lead", "active": true}'`)
    .whereRaw(`not c.after @> '{"role": "lead", "active": true}'`)
    .first('p.name');
  if (putOut)
    throw new Refusal('second_person', {
      detail: `You wrote at this draft yourself, and ${putOut.name} was a lead until you changed that, within the last ${STILL_COUNTS_DAYS} days: they, or another lead, check it and publish it.`,
    });
}
