import { ownPlace, type Place } from '@zero-lash/contract/places';
import type { Knex } from 'knex';

/** How a gauge's address stands in this shop: where it is, or null where it is none that may be reached. */
export function reachable(address: string, onNetwork: boolean): Place | null {
  const place = ownPlace(address);
  return place && (place.here || onNetwork) ? place : null;
}

/** Whether a lead allows gauges on the shop's own network, besides those on this machine. */
export async function allowsNetwork(db: Knex): Promise<boolean> {
  const shop = await db('shop').first('gauges_on_network');
  return shop?.gauges_on_network ?? false;
}
