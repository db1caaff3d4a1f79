/** The refusals that the database itself gives cause for. */
export type DatabaseRefusalCode =
  | 'name_taken'
  | 'build_open'
  | 'draft_open'
  | 'met_another'
  | 'fixed'
  | 'busy'
  | 'database_away'
  | 'cannot_write'
  | 'invalid'
  | 'not_found';

/** What a unique index says when two write the same: names first of all. */
const BY_INDEX: Readonly<Record<string, DatabaseRefusalCode>> = {
  engines_name: 'name_taken',
  people_name: 'name_taken',
  instruments_name: 'name_taken',
  benches_name: 'name_taken',
  sheets_maker_name_key: 'name_taken',
  builds_one_open: 'build_open',
  sheet_revisions_one_draft: 'draft_open',
};

const BY_CODE: Readonly<Record<string, DatabaseRefusalCode>> = {
  ZL001: 'fixed',
  ZL002: 'fixed',
  // foreign keys: what it belongs to is not there, or was taken away meanwhile
  '23503': 'not_found',
  '23514': 'invalid',
  // waited for each other, or for a lock, or for a statement, too long
  '40P01': 'busy',
  '40001': 'busy',
  '55P03': 'busy',
  '57014': 'busy',
  '53300': 'busy',
  // a disk that is full, or cannot be written; a database that takes no writes
  '53100': 'cannot_write',
  '53200': 'cannot_write',
  '53400': 'cannot_write',
  '58030': 'cannot_write',
  '58000': 'cannot_write',
  '25006': 'cannot_write',
  ENOSPC: 'cannot_write',
  EROFS: 'cannot_write',
  EIO: 'cannot_write',
  ECONNREFUSED: 'database_away',
  ECONNRESET: 'database_away',
  EPIPE: 'database_away',
  ETIMEDOUT: 'database_away',
  EHOSTUNREACH: 'database_away',
  ENOTFOUND: 'database_away',
  EAI_AGAIN: 'database_away',
  '57P01': 'database_away',
  '57P02': 'database_away',
  '57P03': 'database_away',
};

/** What a lost connection says for itself: the driver gives it no code, and it stands behind the text of the query. */
const CONNECTION_LOST =
  /^(Connection terminated|Client has encountered a connection error|timeout expired|Cannot use a pool after|Unable to acquire a connection|Knex: Timeout acquiring a connection)/;

/**
 * Says which refusal an error of the database is: what two people did at once, what no column takes, a database that is
 * not there. null where something broke.
 *
 * @example databaseRefusalCode({ code: '23505', constraint: 'engines_name' }) // 'name_taken'
 */
export function databaseRefusalCode(error: {
  readonly code?: string;
  readonly constraint?: string;
  readonly message?: string;
}): DatabaseRefusalCode | null {
  const { code = '', constraint = '', message = '' } = error;
  if (code === '23505') return BY_INDEX[constraint] ?? 'met_another';
  // class 08: connections; class 22: figures and texts that no column takes
  if (code.startsWith('08') && code.length === 5) return 'database_away';
  if (code.startsWith('22') && code.length === 5) return 'invalid';
  const own = message.slice(message.lastIndexOf(BEHIND_QUERY) + BEHIND_QUERY.length);
  const lost = CONNECTION_LOST.test(message) || (message.includes(BEHIND_QUERY) && CONNECTION_LOST.test(own));
  return BY_CODE[code] ?? (lost ? 'database_away' : null);
}

/** What stands between the text of a query and what became of it. */
const BEHIND_QUERY = ' - ';

/** Whether an error says that the database is not there, or not yet: one that waiting mends. */
export function isDatabaseAway(error: unknown): boolean {
  return databaseRefusalCode(error as object) === 'database_away';
}
