import type { SessionStore } from '@fastify/session';
import type { Knex } from 'knex';
import { keyed } from '../keyed.ts';
import { VERSIONS_SQL, versionsOf } from '../tableVersions.ts';

type Callback = (error?: unknown) => void;
type StoredSession = Parameters<SessionStore['set']>[1];

/**
 * Keeps sessions in PostgreSQL, so that several processes share them and a restart keeps people signed in. What is kept
 * of a session's id is a keyed hash: nobody who reads the database can make the cookie that belongs to it.
 */
export class DatabaseSessionStore implements SessionStore {
  readonly #db: Knex;
  readonly #secret: string;

  constructor(db: Knex, secret: string) {
    this.#db = db;
    this.#secret = secret;
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
   * Reads the session with the person it belongs to, and what can be seen in the database by now, in one query; a person made inactive
   * has none.
   */
  get(sid: string, callback: (error: unknown, session?: StoredSession | null) => void): void {
    this.#db
      .raw(
        `select s.data, p.id, p.name, p.role, p.email, p.version, ${VERSIONS_SQL} from sessions s join people p on p.id = s.person_id
         where s.sid = ? and p.active and s.expires_at > now()`,
        [this.markOf(sid)],
      )
      .then(({ rows: [row] }) => {
        if (!row) return callback(null, null);
        const { data, versions, ...person } = row;
        const of = { person: { ...person, active: true }, versions: versionsOf(versions) };
        callback(null, { ...data, ...of } as StoredSession);
      }, callback);
  }

  destroy(sid: string, callback: Callback): void {
    this.#db('sessions')
      .where({ sid: this.markOf(sid) })
      .delete()
      .then(() => callback(), callback);
  }
}
