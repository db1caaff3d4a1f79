/** What a column of a PostgreSQL type is read as, by the parsers of server/database.ts. */
const TYPES = {
  bool: 'boolean',
  bytea: 'Buffer',
  date: 'string',
  float8: 'number',
  int2: 'number',
  int4: 'number',
  int8: 'number',
  json: 'unknown',
  jsonb: 'unknown',
  numeric: 'number',
  text: 'string',
  time: 'string',
  timestamptz: 'Date',
  uuid: 'string',
  varchar: 'string',
};

/** What knex and the sessions keep for themselves. */
const NOT_OURS = ['knex_migrations', 'knex_migrations_lock'];

const COLUMNS = `
  select c.table_name as name, c.column_name as column, c.udt_name as type, c.is_nullable = 'YES' as nullable
    from information_schema.columns c join information_schema.tables t using (table_schema, table_name)
   where c.table_schema = 'public' and t.table_type = 'BASE TABLE' and c.table_name <> all(?)
   order by c.table_name, c.ordinal_position`;

/** Checks that hold a column of text to a few words, as PostgreSQL writes them. */
const WORDS = `
  select r.relname as name, a.attname as column, pg_get_constraintdef(c.oid) as rule
    from pg_constraint c join pg_class r on r.oid = c.conrelid
      join pg_attribute a on a.attrelid = r.oid and a.attnum = c.conkey[1]
   where c.contype = 'c' and cardinality(c.conkey) = 1`;
const ONE_OF =
  /^CHECK \(\((?:\w+|\(\w+\)::text) = ANY \((?:ARRAY\[(.*)\]|\(ARRAY\[(.*)\]\)::text\[\])\)\)\)$/;

/**
 * Writes the types of a database's tables, as TypeScript for knex.
 *
 * @param db a connection to a database at the newest migration
 * @returns the text of server/tables.ts, not yet formatted
 */
export async function tableTypes(db) {
  const { rows: columns } = await db.raw(COLUMNS, [NOT_OURS]);
  const { rows: checks } = await db.raw(WORDS);
  const words = new Map();
  for (const { name, column, rule } of checks) {
    const list = ONE_OF.exec(rule);
    if (list)
      words.set(
        `${name}.${column}`,
        [...(list[1] ?? list[2]).matchAll(/'([^']*)'/g)].map((each) => each[1]),
      );
  }
  const tables = new Map();
  for (const each of columns) tables.set(each.name, [...(tables.get(each.name) ?? []), each]);
  const typeOf = ({ name, column, type, nullable }) => {
    const array = type.startsWith('_');
    const plain = TYPES[array ? type.slice(1) : type];
    if (!plain)
      throw new Error(
        `${name}.${column} is of the type ${type}, which scripts/tableTypes.mjs does not know.`,
      );
    const oneOf = words.get(`${name}.${column}`);
    const read = oneOf ? oneOf.map((word) => `'${word}'`).join(' | ') : plain;
    return `${array ? `${read}[]` : read}${nullable && plain !== 'unknown' ? ' | null' : ''}`;
  };
  const written = [...tables].map(
    ([name, list]) =>
      `    ${name}: {\n${list.map((each) => `      ${each.column}: ${typeOf(each)};`).join('\n')}\n    };`,
  );
  return `// Long because it is every table there is: made by npm run schema from the database as the migrations leave it.
import 'knex/types/tables.js';

declare module 'knex/types/tables.js' {
  interface Tables {
${written.join('\n')}
  }
}
`;
}
