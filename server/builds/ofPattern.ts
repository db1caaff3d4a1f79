import type { Knex } from 'knex';

/** What is kept of a pattern: all of it that a build's pattern has, or one row by its name. */
export type OfPattern = { readonly build: string } | { readonly id: string };

/**
 * Narrows a query over what is kept of patterns, in a table called `k`, to the pattern of a build, or to one row.
 *
 * @example ofPattern(db, db('know_how as k'), { build })
 */
export function ofPattern<Query extends Knex.QueryBuilder>(db: Knex, query: Query, which: OfPattern): Query {
  if ('id' in which) return query.where('k.id', which.id) as Query;
  const sheet = db('builds as b')
    .join('sheet_revisions as r', 'r.id', 'b.revision_id')
    .where('b.id', which.build)
    .select('r.sheet_id');
  return query.where('k.sheet_id', sheet) as Query;
}
