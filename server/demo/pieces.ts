import { addMoves, changeSystem } from '../pieces/store.ts';
import type { Knex } from 'knex';

/** What lies in the demo shop's drawer: a kit bought once, with what years of rebuilding took out of it. */
const DRAWER: readonly {
  readonly system: string;
  readonly price: number;
  readonly reorder: number;
  readonly kit: Readonly<Record<string, number>>;
  readonly used: Readonly<Record<string, number>>;
}[] = [
  {
    system: 'shim under-bucket 9.5',
    price: 7.5,
    reorder: 2,
    kit: { '2.45': 3, '2.5': 3, '2.55': 3, '2.6': 3, '2.65': 3, '2.7': 3, '2.75': 3, '2.8': 3, '2.85': 3 },
    used: { '2.55': -1, '2.6': -3, '2.65': -3, '2.7': -2, '2.75': -3, '2.8': -3 },
  },
  {
    system: 'shim on-bucket 29',
    price: 9,
    reorder: 1,
    kit: { '2.5': 2, '2.55': 2, '2.6': 2, '2.65': 2, '2.7': 2, '2.75': 2, '2.8': 2 },
    used: { '2.6': -2, '2.65': -1 },
  },
];

const linesOf = (counts: Readonly<Record<string, number>>) =>
  Object.entries(counts).map(([thickness, count]) => ({ thickness: Number(thickness), count }));

/** Fills the demo shop's drawer. */
export async function loadDrawer(
  db: Knex,
  { bench, lead }: { readonly bench: string; readonly lead: string },
) {
  for (const { system, price, reorder, kit, used } of DRAWER) {
    await addMoves(db, { system, why: 'kit', lines: linesOf(kit), note: 'the kit in the tin' }, lead);
    await addMoves(
      db,
      { system, why: 'scrapped', lines: linesOf(used), note: 'worn, or used before this was kept' },
      bench,
    );
    await changeSystem(db, system, { price, sizePrices: [], reorder, version: 0 });
  }
}
