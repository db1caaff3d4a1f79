import type { Knex } from 'knex';
import { dayIn, knownZone } from './clock.ts';

/** What can be seen in the database: how often each table was written to, and the day it is in the shop. */
export interface Versions {
  readonly tables: Readonly<Record<string, number>>;
  readonly day: string;
}

/**
 * SQL that gives the versions of every table as one column, for a query that is asked anyway. What was written is in it as soon as it can
 * be seen: each write leaves its lines in its own transaction.
 */
export const VERSIONS_SQL = `(select json_build_object('zone', (select zone from shop), 'tables',
    (select json_object_agg(name, n) from (
      select name, sum(n) as n from (select name, n from table_counts union all select name, 1 from table_changes) each
      group by name) summed))) as versions`;

/** Versions as a row of such a query has them. */
export type VersionsRow = {
  readonly zone: string | null;
  readonly tables: Readonly<Record<string, number>> | null;
};

export const versionsOf = ({ zone, tables }: VersionsRow): Versions => ({
  tables: tables ?? {},
  day: dayIn(knownZone(zone)),
});

/** Asks for the versions by themselves. */
export async function readVersions(db: Knex): Promise<Versions> {
  const { rows } = await db.raw(`select ${VERSIONS_SQL}`);
  return versionsOf((rows as { versions: VersionsRow }[])[0]!.versions);
}

/** How often what was noted is added up: there is never so much of it that asking takes long. */
export const SUM_EVERY_MS = 5000;

/** Adds up what was noted of each table, so that there is never much to add up. What is read of it is the same before and after. */
export async function sumTableChanges(db: Knex): Promise<void> {
  await db.raw(
    `with gone as (delete from table_changes returning name),
       summed as (select name, count(*) as n from gone group by name order by name)
     insert into table_counts (name, n) select name, n from summed
       on conflict (name) do update set n = table_counts.n + excluded.n`,
  );
}

/** Which tables of the schema are noted as they are written to; of the others, and of views, nothing that was read is kept. */
export async function readNoted(
  db: Knex,
): Promise<{ readonly noted: Set<string>; readonly others: Set<string> }> {
  const { rows } = await db.raw(
    `select c.relname as name, exists (select from pg_trigger t where t.tgrelid = c.oid and t.tgname = 'changes_noted') as noted
       from pg_class c where c.relkind in ('r', 'v', 'm', 'p', 'f') and c.relnamespace = 'public'::regnamespace`,
  );
  const names = (isNoted: boolean) =>
    new Set(
      (rows as { name: string; noted: boolean }[])
        .filter(({ noted }) => noted === isNoted)
        .map(({ name }) => name),
    );
  return { noted: names(true), others: names(false) };
}
