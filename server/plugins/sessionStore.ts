import type { SessionStore } from '@fastify/session';
import type { Knex } from 'knex';
import { keyed } from '../keyed.ts';
import type { TableVersions } from '../tableVersions.ts';

type Callback = (error?: unknown) => void;
type StoredSession = Parameters<SessionStore['set']>[1];

interface SessionRow {
  readonly data: object;
  /** ms since 1970 */
  readonly expires: number;
  readonly id: string;
}

interface KeptSession {
  readonly row: SessionRow;
  readonly sessions: number | undefined;
  readonly people: number | undefined;
}

/** Sessions that are kept at the most. */
const MOST_KEPT = 2000;

/**
 * Keeps sessions in PostgreSQL, so that several processes share them and a restart keeps people signed in. What is kept
 * of a session's id is a keyed hash: nobody who reads the database can make the cookie that belongs to it.
 */
export class DatabaseSessionStore implements SessionStore {
  readonly #db: Knex;
  readonly #secret: string;
  readonly #versions: TableVersions;
  /** by what stands in the database for a session's id, with how often it was written to what it was read from */
  readonly #kept = new Map<string, KeptSession>();

  constructor(db: Knex, secret: string, versions: TableVersions) {
    this.#db = db;
    this.#secret = secret;
    this.#versions = versions;
  }

  /** What stands in the database for a session's id. */
  markOf(sid: string): string {
    return keyed(this.#secret, 'session', sid);
  }

  set(sid: string, session: StoredSession, callback: Callback): void {
    const row = {
      sid: this.markOf(sid),
      person_id: session.personId ?? null,
      data: JSON.stringify({ cookie: session.cookie, personId: session.personId }),
      expires_at: session.cookie.expires ?? new Date(Date.now() + 86_400_000),
    };
    this.#db('sessions')
      .insert(row)
      .onConflict('sid')
      .merge()
      .then(() => callback(), callback);
  }

  /**
   * Reads the session with the person it belongs to, and what can be seen in the database by now; a person made inactive has none. It is
   * kept for as long as nobody signs in or out and nothing of anybody is changed.
   */
  get(sid: string, callback: (error: unknown, session?: StoredSession | null) => void): void {
    this.#find(this.markOf(sid)).then((session) => callback(null, session), callback);
  }

  async #find(mark: string): Promise<StoredSession | null> {
    const versions = await this.#versions.now();
    const { sessions, people } = versions.tables;
    const known = this.#kept.get(mark);
    const holds = known !== undefined && known.sessions === sessions && known.people === people;
    const row = holds ? known.row : await this.#read(mark);
    if (!row || row.expires <= versions.at) return null;
    if (!holds) {
      if (this.#kept.size >= MOST_KEPT) this.#kept.clear();
      this.#kept.set(mark, { row, sessions, people });
    }
    const { data, expires: _, ...person } = row;
    return { ...data, person: { ...person, active: true }, versions } as StoredSession;
  }

  async #read(mark: string): Promise<SessionRow | undefined> {
    const { rows } = await this.#db.raw(
      `select s.data, extract(epoch from s.expires_at)::float8 * 1000 as expires, p.id, p.name, p.role, p.email, p.version
         from sessions s join people p on p.id = s.person_id where s.sid = ? and p.active`,
      [mark],
    );
    return (rows as SessionRow[])[0];
  }

  destroy(sid: string, callback: Callback): void {
    this.#db('sessions')
      .where({ sid: this.markOf(sid) })
      .delete()
      .then(() => callback(), callback);
  }
}
