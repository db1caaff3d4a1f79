import { randomBytes } from 'node:crypto';
import type { Knex } from 'knex';

/**
 * Makes sure the shop's own row is there and gives the secret its cookies are signed with. The secret lives in the
 * database, so that several processes of one shop share it.
 */
export async function shopSecret(
  db: Knex,
  shop: { readonly name: string; readonly zone: string },
): Promise<string> {
  await db('shop')
    .insert({ ...shop, unit: 'mm', cookie_secret: randomBytes(32).toString('hex') })
    .onConflict('singleton')
    .ignore();
  const row = await db('shop').first('cookie_secret');
  return row.cookie_secret as string;
}
