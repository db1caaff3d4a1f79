import '../buildRooms.ts';
import { randomUUID } from 'node:crypto';
import type { NewSheet, SheetRevision } from '@zero-lash/contract/sheets';
import type { Knex } from 'knex';
import { hashPassphrase } from '../plugins/passphrase.ts';
import { addPerson, ensureShop } from '../people/store.ts';
import { recordChecks, refreshForecast, replan } from '../rechecks/planning.ts';
import { refreshExpected } from '../rechecks/forecast.ts';
import { addSheet, publishRevision, reviseSheet } from '../sheets/store.ts';
import { loadAtSet } from './atSet.ts';
import { loadDrawer } from './pieces.ts';
import { loadEngine } from './engine.ts';
import { loadInstruments } from './instruments.ts';
import { loadOpenHeads } from './openHead.ts';
import { DEMO_FLEET, DEMO_OWN_PLAN, DEMO_OWNERS } from './fleet.ts';
import { DEMO_DRAFT, DEMO_PICTURES, DEMO_SECOND_REVISIONS, DEMO_SHEETS } from './sheets/index.ts';
import { DEMO_ENGINES, DEMO_PEOPLE, DEMO_SHOP } from './world.ts';

/**
 * Loads the demo world into an empty database, in one transaction; dates are laid relative to now.
 *
 * @returns false where anybody is there already: nothing is touched then
 */
export async function loadDemo(db: Knex, now: Date = new Date()): Promise<boolean> {
  return db.transaction(async (transaction) => {
    if (await transaction('people').first('id')) return false;
    await ensureShop(transaction, DEMO_SHOP);
    await transaction('shop').update({ ...DEMO_SHOP, meter_feed: process.env.DEMO_METERS ?? '' });
    const people: Record<string, string> = {};
    for (const { passphrase, ...person } of DEMO_PEOPLE) {
      const passphraseHash = await hashPassphrase(passphrase);
      people[person.name] = (await addPerson(transaction, { ...person, passphraseHash })).id;
    }
    const bench = people['Tobin Hask']!;
    const lead = people['Ilse Marrand']!;
    const bladeSet = await loadInstruments(transaction, lead, now);
    const sheets: Record<string, SheetRevision> = {};
    for (const [key, sheet] of Object.entries(DEMO_SHEETS)) {
      const drawn = { ...sheet, body: { ...sheet.body, pictures: (await DEMO_PICTURES[key]?.()) ?? [] } };
      const draft = await addSheet(transaction, inSeason(drawn, now), people['Osk Velland']!);
      sheets[key] = await publishRevision(transaction, draft.id, draft.version, lead);
    }
    for (const [index, engine] of [...DEMO_ENGINES, ...DEMO_FLEET].entries())
      await loadEngine(transaction, engine, sheets[engine.sheet]!, {
        bench,
        lead,
        bladeSet,
        now,
        seed: index + 1,
      });
    await loadOpenHeads(transaction, { bench, now });
    await loadAtSet(transaction, { bench, lead, now });
    await loadRechecks(transaction, lead);
    await loadDrawer(transaction, { bench, lead });
    await addSheet(transaction, DEMO_DRAFT, bench);
    for (const [key, body] of Object.entries(DEMO_SECOND_REVISIONS)) {
      const draft = await reviseSheet(transaction, sheets[key]!.sheetId, body, people['Osk Velland']!);
      await publishRevision(transaction, draft.id, draft.version, lead);
    }
    return true;
  });
}

const SEASON_IN_DAYS = 21;
const SEASON_LASTS_DAYS = 150;

/** A sheet whose rechecks come before a season: it begins three weeks after the demo is loaded, whenever that is. */
function inSeason(sheet: NewSheet, now: Date): NewSheet {
  const dayIn = (days: number) => new Date(now.getTime() + days * 86_400_000).toISOString().slice(5, 10);
  const plan = sheet.body.recheckPlan.map((step) =>
    step.season === ''
      ? step
      : { ...step, before: dayIn(SEASON_IN_DAYS), until: dayIn(SEASON_IN_DAYS + SEASON_LASTS_DAYS) },
  );
  return { ...sheet, body: { ...sheet.body, recheckPlan: plan } };
}

/** What came of the rechecks of the demo world: every finding against its forecast, and every planned one forecast. */
async function loadRechecks(db: Knex, lead: string): Promise<void> {
  for (const [name, wish] of Object.entries(DEMO_OWNERS)) await db('owners').where({ name }).update(wish);
  await db('people').where({ name: 'Ilse Marrand' }).update({ email: 'ilse@overmereworks.example' });
  const rechecks = (await db('rechecks')
    .orderByRaw('done_at nulls last')
    .select('id', 'status', 'engine_id')) as {
    id: string;
    status: string;
    engine_id: string;
  }[];
  for (const { id, status } of rechecks) if (status === 'done') await recordChecks(db, id);
  for (const { id, status, engine_id: engineId } of rechecks)
    if (status === 'planned') {
      await refreshForecast(db, id);
      await refreshExpected(db, engineId);
    }
  const { engine, step, why } = DEMO_OWN_PLAN;
  const own = await db('engines as e')
    .join('builds as b', 'b.engine_id', 'e.id')
    .join('sheet_revisions as v', 'v.id', 'b.revision_id')
    .where('e.name', engine)
    .first('e.id', 'v.recheck_plan as plan');
  const plan = [{ ...own.plan.at(-1), ...step }];
  await db('engine_plans').insert({
    ...{ id: randomUUID(), engine_id: own.id, plan: JSON.stringify(plan), why, by: lead },
  });
  await replan(db, own.id, { why, personId: lead });
  const held = await db('rechecks as r')
    .join('engines as e', 'e.id', 'r.engine_id')
    .where({ 'e.name': 'Emergency set, Overmere Infirmary', 'r.status': 'planned' })
    .first('r.id');
  await db('rechecks').where({ id: held.id }).update({ held: true });
  await db('recheck_changes').insert({
    ...{ id: randomUUID(), recheck_id: held.id, kind: 'held', by: lead },
    why: 'The infirmary cannot do without it before its second set is back',
  });
}
