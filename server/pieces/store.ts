import type {
  Drawer,
  DrawerMove,
  DrawerSystem,
  MoveReason,
  newCount,
  newMoves,
  systemChange,
} from '@zero-lash/contract/pieces';
import type { newSetting } from '@zero-lash/contract/setting';
import type { SheetRevision } from '@zero-lash/contract/sheets';
import { mmFromTenths, tenthsFromMm } from '@zero-lash/core/length';
import { pieceSystem, sizesOf } from '@zero-lash/core/setting';
import { meansFor, pieceUnit, rolesOf } from '@zero-lash/core/sheets';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { json } from '../storedJson.ts';
import { Refusal } from '../plugins/errors.ts';
import { pointAt } from '../sheets/limitsAt.ts';
import { findRevision } from '../sheets/read.ts';

/** How many of its last movements a ledger shows. */
const SHOWN_MOVES = 200;

/** What a shop's sheets want of one system. */
interface Wanted {
  readonly title: string;
  readonly stamped: 'mm' | 'thou';
  readonly made: ReadonlySet<number>;
}

/** The systems that the published sheets of a shop are set by, with every size they are made in. */
export async function wantedSystems(db: Knex): Promise<ReadonlyMap<string, Wanted>> {
  const sheets = (await db('sheet_revisions').where({ status: 'published' }).select('id')) as {
    id: string;
  }[];
  const systems = new Map<string, { title: string; stamped: 'mm' | 'thou'; made: Set<number> }>();
  for (const { id } of sheets) {
    const { pattern } = await findRevision(db, id);
    for (const role of rolesOf(pattern)) {
      const means = meansFor(pattern, role);
      const system = pieceSystem(means);
      if (!system || !('sizes' in means)) continue;
      const { title, stamped, made } = systems.get(system.key) ?? {
        ...{ title: system.title, stamped: pieceUnit(pattern, role), made: new Set<number>() },
      };
      for (const size of sizesOf(means.sizes)) made.add(size);
      systems.set(system.key, { title, stamped, made });
    }
  }
  return systems;
}

/** Everything in the drawer, and what could be. */
export async function readDrawer(db: Knex): Promise<Drawer> {
  const wanted = await wantedSystems(db);
  const stock = (await db('piece_moves')
    .whereNull('of_shop')
    .groupBy('system', 'thickness')
    .orderBy(['system', 'thickness'])
    .select('system', 'thickness', { count: db.raw('sum(count)::int') })) as {
    readonly system: string;
    readonly thickness: number;
    readonly count: number;
  }[];
  const kept = await db('piece_systems').select('system', 'price', 'reorder', 'version', {
    sizePrices: 'size_prices',
  });
  const keys = [...new Set([...wanted.keys(), ...stock.map(({ system }) => system)])].sort();
  return {
    systems: keys.map((system): DrawerSystem => {
      const own = kept.find((each) => each.system === system);
      return {
        system,
        title: wanted.get(system)?.title ?? system,
        stamped: wanted.get(system)?.stamped ?? 'mm',
        made: [...(wanted.get(system)?.made ?? [])].sort((a, b) => a - b).map(mmFromTenths),
        sizes: stock
          .filter((each) => each.system === system)
          .map(({ thickness, count }) => ({ thickness: mmFromTenths(thickness), count })),
        price: Number(own?.price ?? 0),
        sizePrices: (json('piece_systems.size_prices', own?.sizePrices ?? null) ?? []).map(
          ({ thickness, price }) => ({ thickness: mmFromTenths(thickness), price }),
        ),
        reorder: own?.reorder ?? 0,
        version: own?.version ?? 0,
      };
    }),
  };
}

/** The last movements of a system, newest first. */
export async function readMoves(db: Knex, system: string): Promise<DrawerMove[]> {
  const rows = await db('piece_moves as m')
    .join('people as p', 'p.id', 'm.by')
    .leftJoin('builds as b', 'b.id', 'm.build_id')
    .leftJoin('engines as e', 'e.id', 'b.engine_id')
    .where('m.system', system)
    .whereNull('m.of_shop')
    .orderBy([
      { column: 'm.at', order: 'desc' },
      { column: 'm.id', order: 'desc' },
    ])
    .limit(SHOWN_MOVES)
    .select('m.id', 'm.system', 'm.thickness', 'm.count', 'm.why', 'm.point', 'm.note', 'm.at', {
      buildId: 'm.build_id',
      engine: 'e.name',
      by: 'p.name',
    });
  return rows.map((row) => ({
    ...row,
    thickness: mmFromTenths(row.thickness),
    at: row.at.toISOString(),
  }));
}

/** One after another within a system: a count is never made from what another is just taking. */
export async function hold(db: Knex, system: string): Promise<void> {
  await db.raw('select pg_advisory_xact_lock(hashtext(?))', [`drawer ${system}`]);
}

async function stockOf(db: Knex, system: string): Promise<ReadonlyMap<number, number>> {
  const rows = (await db('piece_moves')
    .where({ system, of_shop: null })
    .groupBy('thickness')
    .select('thickness', { count: db.raw('sum(count)::int') })) as { thickness: number; count: number }[];
  return new Map(rows.map(({ thickness, count }) => [thickness, count]));
}

/** Refuses a system that no sheet of the shop is set by. */
export async function refuseStranger(db: Knex, system: string): Promise<void> {
  if ((await wantedSystems(db)).has(system)) return;
  throw new Refusal('not_found', { detail: `No sheet of this shop is set by pieces kept as “${system}”.` });
}

/**
 * Writes down pieces that came in or went out.
 *
 * @throws Refusal `not_there` where more would go out than lies there: nothing of it is written
 */
export async function addMoves(
  db: Knex,
  { system, why, lines, note }: z.output<typeof newMoves>,
  personId: string,
): Promise<Drawer> {
  await refuseStranger(db, system);
  await hold(db, system);
  const stock = new Map(await stockOf(db, system));
  lines.forEach(({ thickness, count }, index) => {
    const size = tenthsFromMm(thickness);
    const left = (stock.get(size) ?? 0) + count;
    if (left < 0)
      throw new Refusal('not_there', {
        detail: `Of ${thickness} mm there are ${stock.get(size) ?? 0}: ${-count} cannot go out. If there are more, count the drawer first.`,
        fields: [{ path: `lines.${index}.count`, message: 'is more than lies there' }],
      });
    stock.set(size, left);
  });
  await insertMoves(
    db,
    lines.map(({ thickness, count }) => ({ system, thickness: tenthsFromMm(thickness), count, why, note })),
    personId,
  );
  return readDrawer(db);
}

/** Takes stock: what lies there is there, and the ledger says by how much it was wrong. */
export async function countDrawer(
  db: Knex,
  { system, lines, note }: z.output<typeof newCount>,
  personId: string,
): Promise<Drawer> {
  await refuseStranger(db, system);
  await hold(db, system);
  const stock = await stockOf(db, system);
  const counted = new Map(lines.map(({ thickness, count }) => [tenthsFromMm(thickness), count]));
  await insertMoves(
    db,
    [...counted].map(([thickness, count]) => ({
      ...{ system, thickness, count: count - (stock.get(thickness) ?? 0), why: 'counted' as const, note },
    })),
    personId,
  );
  return readDrawer(db);
}

/** Says what a piece of a system costs, and how many of a size are to be there. */
export async function changeSystem(
  db: Knex,
  system: string,
  { price, sizePrices, reorder, version }: z.output<typeof systemChange>,
): Promise<Drawer> {
  await refuseStranger(db, system);
  await hold(db, system);
  const current = await db('piece_systems').where({ system }).first('version');
  if ((current?.version ?? 0) !== version)
    throw new Refusal('stale', {
      current: (await readDrawer(db)).systems.find((each) => each.system === system),
    });
  await db('piece_systems')
    .insert({
      ...{ system, price, reorder, version: version + 1 },
      size_prices: JSON.stringify(
        sizePrices.map(({ thickness, price: own }) => ({ thickness: tenthsFromMm(thickness), price: own })),
      ),
    })
    .onConflict('system')
    .merge();
  return readDrawer(db);
}

/** One movement as it is written. */
export interface Move {
  readonly system: string;
  readonly thickness: number;
  readonly count: number;
  readonly why: MoveReason;
  readonly note: string;
  readonly point?: string;
  readonly build_id?: string;
  readonly at?: Date;
  readonly order_id?: string;
}

/** Writes movements; one of nothing is none. */
export async function insertMoves(db: Knex, moves: readonly Move[], by: string): Promise<void> {
  const real = moves.filter(({ count }) => count !== 0);
  if (real.length > 0) await db('piece_moves').insert(real.map((move) => ({ ...move, by })));
}

interface Fitted {
  readonly sheet: SheetRevision;
  readonly buildId: string;
  readonly input: z.output<typeof newSetting>;
  readonly personId: string;
  readonly at: Date;
  /** the mark on the piece that came out, as far as anybody wrote it down */
  readonly markOut: string;
}

/**
 * Moves the pieces of a setting out of the drawer and into it. A piece that was fitted was there, whatever the ledger said: one
 * that it knew nothing of is written down as found.
 */
export async function moveForSetting(
  db: Knex,
  { sheet, buildId, input, personId, at, markOut }: Fitted,
): Promise<void> {
  const { point, from, to, installed, fitted } = input;
  const system = pieceSystem(meansFor(sheet.pattern, pointAt(sheet, point).role));
  if (!system || (input.kind !== 'fitted' && input.kind !== 'bare')) return;
  if (from !== 'drawer' && to !== 'drawer') return;
  await hold(db, system.key);
  const there = { system: system.key, point, build_id: buildId, at };
  const moves: Move[] = [];
  if (from === 'drawer' && fitted !== null) {
    const out = tenthsFromMm(fitted);
    const known = (await stockOf(db, system.key)).get(out) ?? 0;
    if (known < 1)
      moves.push({
        ...there,
        thickness: out,
        count: 1,
        why: 'found',
        note: 'the drawer was said to have none',
      });
    moves.push({ ...there, thickness: out, count: -1, why: 'fitted', note: marked(input.mark) });
  }
  if (to === 'drawer' && installed !== null)
    moves.push({
      ...there,
      thickness: tenthsFromMm(installed),
      count: 1,
      why: 'taken-out',
      note: marked(markOut),
    });
  await insertMoves(db, moves, personId);
}

/**
 * Moves the pieces of a setting back to where they were before it. What was found in the drawer by it stays found: it lay there.
 *
 * @throws Refusal `not_there` where what was taken out has gone out of the drawer since
 */
export async function moveBack(
  db: Knex,
  place: { readonly build_id: string; readonly point: string; readonly at: Date },
  personId: string,
  note: string,
): Promise<void> {
  const moves = (await db('piece_moves')
    .where({ ...place, of_shop: null })
    .whereIn('why', ['fitted', 'taken-out'])
    .select('system', 'thickness', 'count')) as Pick<Move, 'system' | 'thickness' | 'count'>[];
  for (const system of new Set(moves.map((each) => each.system))) await hold(db, system);
  for (const { system, thickness, count } of moves) {
    if (count < 0 || ((await stockOf(db, system)).get(thickness) ?? 0) >= count) continue;
    const mm = mmFromTenths(thickness);
    throw new Refusal('not_there', {
      detail: `The ${mm} mm that came out of ${place.point} has gone out of the drawer since: take that back first, or count the drawer.`,
    });
  }
  const { build_id, point } = place;
  await insertMoves(
    db,
    moves.map(({ system, thickness, count }) => ({
      ...{ system, thickness, count: -count, why: 'taken-back' as const, note, build_id, point },
    })),
    personId,
  );
}

const marked = (mark: string) => (mark === '' ? '' : `marked ${mark}`);
