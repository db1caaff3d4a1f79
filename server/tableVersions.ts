import type { Knex } from 'knex';
import { dayIn, knownZone } from './clock.ts';

/** A build's own count of what was written in it, noted apart: it is raised with every reading, and few answers have it in them. */
const SEQ = 'seq';

/** What can be seen in the database: how often each table was written to, the day it is in the shop, and the time. */
export interface Versions {
  readonly tables: Readonly<Record<string, number>>;
  readonly day: string;
  /** ms since 1970, by the clock of the database */
  readonly at: number;
}

/** Asked at every request, or for as many as wait: a question of its own, for the longer one takes three times as long to plan. */
const TOTAL_SQL = `
  select ((select coalesce(sum(n), 0) from table_counts) + (select count(*) from table_changes))::float8 as total,
    (select zone from shop) as zone, extract(epoch from now())::float8 * 1000 as at`;

const TABLES_SQL = `
  select coalesce(json_object_agg(name, n), '{}') as tables, coalesce(sum(n), 0)::float8 as total from (
    select name, sum(n) as n from (select name, n from table_counts union all select name, 1 from table_changes) each
    group by name) summed`;

/** What is known of each table, and of all together: what is seen only grows, so that where all is as much as before each is. */
interface Known {
  readonly total: number;
  readonly tables: Versions['tables'];
}

/**
 * Says what can be seen in the database. Whoever comes while it is being asked waits for the next asking, which begins after they came: one
 * question serves all who wait, and nobody is told less than was written when they asked.
 */
export class TableVersions {
  readonly #db: Knex;
  #asking: Promise<Versions> | null = null;
  #next: Promise<Versions> | null = null;
  #known: Known | null = null;

  constructor(db: Knex) {
    this.#db = db;
  }

  now(): Promise<Versions> {
    if (!this.#asking) return this.#ask();
    this.#next ??= this.#asking.then(
      () => this.#askNext(),
      () => this.#askNext(),
    );
    return this.#next;
  }

  #askNext(): Promise<Versions> {
    this.#next = null;
    return this.#ask();
  }

  #ask(): Promise<Versions> {
    const asking = this.#look();
    this.#asking = asking;
    const settle = () => {
      if (this.#asking === asking) this.#asking = null;
    };
    asking.then(settle, settle);
    return asking;
  }

  async #look(): Promise<Versions> {
    const { rows } = await this.#db.raw(TOTAL_SQL);
    const { total, zone, at } = (rows as { total: number; zone: string | null; at: number }[])[0]!;
    if (this.#known?.total !== total) {
      const each = await this.#db.raw(TABLES_SQL);
      this.#known = (each.rows as Known[])[0]!;
    }
    return { tables: this.#known.tables, day: dayIn(knownZone(zone)), at };
  }
}

/** How often what was noted is added up: there is never so much of it that asking takes long. */
export const SUM_EVERY_MS = 2000;

/** Adds up what was noted of each table, so that there is never much to add up. What is read of it is the same before and after. */
export async function sumTableChanges(db: Knex): Promise<void> {
  await db.raw(
    `with gone as (delete from table_changes returning name),
       summed as (select name, count(*) as n from gone group by name order by name)
     insert into table_counts (name, n) select name, n from summed
       on conflict (name) do update set n = table_counts.n + excluded.n`,
  );
}

/** The tables of a schema: those that are noted as they are written to, and those of which nothing that was read is kept. */
export interface Noted {
  readonly noted: ReadonlySet<string>;
  readonly others: ReadonlySet<string>;
}

export async function readNoted(db: Knex): Promise<Noted> {
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

/** A word that may be a table's name. */
const WORD = /[a-z_]+/g;
/** Every column of a build, or of what may be one. */
const EVERY_COLUMN = /\.\*|select \* from "?builds\b/;

/**
 * Finds what a query hangs on by the names in it. One that only looks like a table's makes an answer go sooner than it must, and never stay
 * longer.
 *
 * @returns the tables, and one that is not noted, if any
 * @example tablesIn('select name from engines', schema) // { tables: ['engines'], other: null }
 */
export function tablesIn(
  sql: string,
  { noted, others }: Noted,
): { readonly tables: readonly string[]; readonly other: string | null } {
  const words = new Set([...sql.matchAll(WORD)].map(([word]) => word));
  const tables = [...words].filter((word) => noted.has(word));
  const counted = words.has('builds') && (words.has(SEQ) || EVERY_COLUMN.test(sql));
  return {
    tables: counted ? [...tables, SEQ] : tables,
    other: [...words].find((word) => others.has(word)) ?? null,
  };
}
