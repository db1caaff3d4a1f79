import type { Knex } from 'knex';
import { Refusal } from '../plugins/errors.ts';

/** How long a gauge stays with a device that says nothing more. */
const HOLD = '12 hours';

/** Who holds which gauge now. */
export async function readHolds(
  db: Knex,
): Promise<Map<string, { readonly device: string; readonly heldBy: string }>> {
  const rows = await db('gauge_holds as h')
    .join('people as p', 'p.id', 'h.person_id')
    .where('h.until', '>', db.fn.now())
    .select('h.instrument_id as instrument', 'h.device', 'p.name as heldBy');
  return new Map(rows.map(({ instrument, device, heldBy }) => [instrument, { device, heldBy }]));
}

/** Gives a gauge to a device; whoever held it before has let go by that, and sees so. */
export async function takeGauge(db: Knex, instrument: string, device: string, personId: string) {
  const gauge = await db('instruments')
    .where({ id: instrument, kind: 'digital-gauge', active: true })
    .first('id', 'name');
  if (!gauge) throw new Refusal('not_found', { detail: 'There is no such gauge.' });
  await db('gauge_holds')
    .insert({
      instrument_id: instrument,
      device,
      person_id: personId,
      until: db.raw(`now() + interval '${HOLD}'`),
    })
    .onConflict('instrument_id')
    .merge();
  return { instrument, device };
}

export async function letGaugeGo(db: Knex, instrument: string, device: string) {
  await db('gauge_holds').where({ instrument_id: instrument, device }).delete();
  return { instrument, device };
}
