import type { newDelivery, newOrder, PieceOrder } from '@zero-lash/contract/pieces';
import { formatLength, mmFromTenths, tenthsFromMm } from '@zero-lash/core/length';
import { dayInWords } from '@zero-lash/core/rechecks';
import type { Knex } from 'knex';
import type { z } from 'zod';
import type { ListPaper } from '../papers/listPaper.ts';
import { dayIn, shopZone } from '../clock.ts';
import { json } from '../storedJson.ts';
import { Refusal } from '../plugins/errors.ts';
import { hold, insertMoves, refuseStranger, wantedSystems } from './store.ts';

/** Orders that are shown: the open ones, and of the others the newest. */
const SHOWN = 60;

interface OrderRow {
  readonly id: string;
  readonly system: string;
  readonly lines: unknown;
  readonly note: string;
  readonly buildId: string | null;
  readonly engine: string | null;
  readonly by: string;
  readonly at: Date;
  readonly closedAt: Date | null;
}

/** The orders of a shop, open ones first, newest first; one of them where it is named. */
export async function readOrders(db: Knex, id?: string): Promise<PieceOrder[]> {
  const query = db('piece_orders as o')
    .join('people as p', 'p.id', 'o.by')
    .leftJoin('builds as b', 'b.id', 'o.build_id')
    .leftJoin('engines as e', 'e.id', 'b.engine_id')
    .orderByRaw('o.closed_at is not null, o.at desc')
    .limit(SHOWN)
    .select('o.id', 'o.system', 'o.lines', 'o.note', 'o.at', {
      buildId: 'o.build_id',
      engine: 'e.name',
      by: 'p.name',
      closedAt: 'o.closed_at',
    });
  if (id !== undefined) query.where('o.id', id);
  const rows = (await query) as OrderRow[];
  const came = (await db('piece_moves')
    .whereIn(
      'order_id',
      rows.map((row) => row.id),
    )
    .groupBy('order_id', 'thickness')
    .select('thickness', { order: 'order_id', count: db.raw('sum(count)::int') })) as {
    readonly order: string;
    readonly thickness: number;
    readonly count: number;
  }[];
  const systems = await wantedSystems(db);
  return rows.map(({ closedAt, at, ...row }) => ({
    ...row,
    title: systems.get(row.system)?.title ?? row.system,
    at: at.toISOString(),
    lines: json('piece_orders.lines', row.lines).map(({ thickness, count }) => ({
      thickness: mmFromTenths(thickness),
      count,
      came: came.find((each) => each.order === row.id && each.thickness === thickness)?.count ?? 0,
    })),
    open: closedAt === null,
  }));
}

/** Orders pieces. */
export async function addOrder(
  db: Knex,
  { system, lines, buildId, note }: z.output<typeof newOrder>,
  by: string,
  key: string,
): Promise<PieceOrder[]> {
  await refuseStranger(db, system);
  if (buildId !== null && !(await db('builds').where({ id: buildId }).first('id')))
    throw new Refusal('not_found', { detail: 'There is no such build.' });
  await db('piece_orders').insert({
    ...{ id: key, system, note, by, build_id: buildId },
    lines: JSON.stringify(
      lines.map(({ thickness, count }) => ({ thickness: tenthsFromMm(thickness), count })),
    ),
  });
  return readOrders(db);
}

/**
 * Brings in what came of an order: the pieces lie in the drawer from then on. An order of which everything came is closed, and
 * so is one whose rest will not come.
 *
 * @throws Refusal `not_ordered` where more came than is waited for; what came besides is written down as bought
 */
export async function takeDelivery(
  db: Knex,
  id: string,
  { lines, closes }: z.output<typeof newDelivery>,
  by: string,
): Promise<PieceOrder[]> {
  const row = await db('piece_orders').where({ id }).forUpdate().first('system', 'closed_at');
  if (!row) throw new Refusal('not_found', { detail: 'There is no such order.' });
  if (row.closed_at) throw new Refusal('order_closed');
  await hold(db, row.system);
  const [order] = await readOrders(db, id);
  const left = new Map(
    order!.lines.map(({ thickness, count, came }) => [tenthsFromMm(thickness), count - came]),
  );
  lines.forEach(({ thickness, count }, index) => {
    const size = tenthsFromMm(thickness);
    const waits = left.get(size) ?? 0;
    if (count > waits)
      throw new Refusal('not_ordered', {
        detail: `Of ${thickness} mm ${waits} are waited for in this order, and not ${count}: write what came besides down as bought.`,
        fields: [{ path: `lines.${index}.count`, message: 'is more than is waited for' }],
      });
    left.set(size, waits - count);
  });
  await insertMoves(
    db,
    lines.map(({ thickness, count }) => ({
      ...{ system: row.system, thickness: tenthsFromMm(thickness), count, why: 'bought' as const },
      ...{ note: 'as ordered', order_id: id },
    })),
    by,
  );
  if (closes || [...left.values()].every((waits) => waits === 0))
    await db('piece_orders').where({ id }).update('closed_at', db.fn.now());
  return readOrders(db);
}

/** An order as it is printed and sent. */
export async function orderPaper(db: Knex, id: string): Promise<ListPaper> {
  const [order] = await readOrders(db, id);
  if (!order) throw new Refusal('not_found', { detail: 'There is no such order.' });
  const shop = (await db('shop').first('name'))!;
  const priced = await db('piece_systems').where({ system: order.system }).first('price', 'size_prices');
  const usual = Number(priced?.price ?? 0);
  const own = json('piece_systems.size_prices', priced?.size_prices ?? null) ?? [];
  const costs = (mm: number) => own.find(({ thickness }) => thickness === tenthsFromMm(mm))?.price ?? usual;
  const price = order.lines.reduce((sum, { thickness, count }) => sum + costs(thickness) * count, 0);
  const pieces = order.lines.reduce((sum, { count }) => sum + count, 0);
  return {
    title: `Order: ${order.title}`,
    under: `${shop.name} · ${dayInWords(dayIn(await shopZone(db), new Date(order.at)))} · ${order.by}`,
    notes: [
      ...(order.engine === null ? [] : [`For ${order.engine}.`]),
      ...(order.note === '' ? [] : [order.note]),
      `${pieces} piece${pieces === 1 ? '' : 's'} in all${price > 0 ? `, ${price.toFixed(2)} at the last known price` : ''}.`,
    ],
    tables: [
      {
        columns: [
          { title: 'Thickness, mm', left: 0, width: 120 },
          { title: 'Count', left: 130, width: 60, align: 'right' },
          { title: price > 0 ? 'Price' : '', left: 210, width: 80, align: 'right' },
        ],
        rows: order.lines.map(({ thickness, count }) => [
          formatLength(tenthsFromMm(thickness), 'mm'),
          String(count),
          price > 0 ? (costs(thickness) * count).toFixed(2) : '',
        ]),
      },
    ],
    empty: 'Nothing is ordered.',
  };
}
