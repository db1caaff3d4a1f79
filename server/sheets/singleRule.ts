import type { SingleRule } from '@zero-lash/core/sheets';
import type { Knex } from 'knex';
import { json } from '../storedJson.ts';

/** The band that the shop lays round one figure of a source today; null where it goes by the usual one. A build has its own. */
export async function shopSingleRule(db: Knex): Promise<SingleRule | null> {
  const shop = await db('shop').first('single_rule');
  return json('shop.single_rule', shop?.single_rule ?? null);
}
