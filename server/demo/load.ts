import type { SheetRevision } from '@zero-lash/contract/sheets';
import type { Knex } from 'knex';
import { addPerson, ensureShop } from '../people/store.ts';
import { addSheet, publishRevision, reviseSheet } from '../sheets/store.ts';
import { loadAtSet } from './atSet.ts';
import { loadDrawer } from './drawer.ts';
import { loadEngine } from './engine.ts';
import { loadInstruments } from './instruments.ts';
import { loadOpenHeads } from './openHead.ts';
import { DEMO_DRAFT, DEMO_SECOND_REVISIONS, DEMO_SHEETS } from './sheets/index.ts';
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
    await transaction('shop').update(DEMO_SHOP);
    const people: Record<string, string> = {};
    for (const person of DEMO_PEOPLE) people[person.name] = (await addPerson(transaction, person)).id;
    const bench = people['Tobin Hask']!;
    const lead = people['Ilse Marrand']!;
    const bladeSet = await loadInstruments(transaction, lead, now);
    const sheets: Record<string, SheetRevision> = {};
    for (const [key, sheet] of Object.entries(DEMO_SHEETS)) {
      const draft = await addSheet(transaction, sheet, people['Osk Velland']!);
      sheets[key] = await publishRevision(transaction, draft.id, draft.version, lead);
    }
    for (const [index, engine] of DEMO_ENGINES.entries())
      await loadEngine(transaction, engine, sheets[engine.sheet]!, {
        bench,
        lead,
        bladeSet,
        now,
        seed: index + 1,
      });
    await loadOpenHeads(transaction, { bench, now });
    await loadAtSet(transaction, { bench, lead, now });
    await loadDrawer(transaction, { bench, lead });
    await addSheet(transaction, DEMO_DRAFT, bench);
    for (const [key, body] of Object.entries(DEMO_SECOND_REVISIONS)) {
      const draft = await reviseSheet(transaction, sheets[key]!.sheetId, body, people['Osk Velland']!);
      await publishRevision(transaction, draft.id, draft.version, lead);
    }
    return true;
  });
}
