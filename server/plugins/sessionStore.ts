import type { SessionStore } from '@fastify/session';
import type { Knex } from 'knex';

type Callback = (error?: unknown) => void;
type StoredSession = Parameters<SessionStore['set']>[1];

/** Keeps sessions in PostgreSQL, so that several processes share them and a restart keeps people signed in. */
export class DatabaseSessionStore implements SessionStore {
  readonly #db: Knex;

  constructor(db: Knex) {
    this.#db = db;
  }

  set(sid: string, session: StoredSession, callback: Callback): void {
    const row = {
      sid,
      person_id: session.personId ?? null,
      data: JSON.stringify(session),
      expires_at: session.cookie.expires ?? new Date(Date.now() + 86_400_000),
    };
    this.#db('sessions')
      .insert(row)
      .onConflict('sid')
      .merge()
      .then(() => callback(), callback);
  }

  /** Reads the session with the person it belongs to, in one query; a person made inactive has none. */
  get(sid: string, callback: (error: unknown, session?: StoredSession | null) => void): void {
    this.#db
      .raw(
        `select s.data, p.id, p.name, p.role, p.version from sessions s join people p on p.id = s.person_id
         where s.sid = ? and p.active and s.expires_at > now()`,
        [sid],
      )
      .then(({ rows: [row] }) => {
        if (!row) return callback(null, null);
        const { data, ...person } = row;
        callback(null, { ...data, person: { ...person, active: true } } as StoredSession);
      }, callback);
  }

  destroy(sid: string, callback: Callback): void {
    this.#db('sessions')
      .where({ sid })
      .delete()
      .then(() => callback(), callback);
  }
}
