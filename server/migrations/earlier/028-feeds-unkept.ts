import type { Knex } from 'knex';

/** The private address of a calendar is kept as a hash alone: it stood in clear among the answers that are kept for a retry. */
export async function up(knex: Knex): Promise<void> {
  await knex('writes').where('route', 'like', '%calendar-feeds%').delete();
}

/** What was told of is told of. */
export function down(): Promise<void> {
  return Promise.resolve();
}
