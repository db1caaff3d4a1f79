import type { LiveEvent } from '@zero-lash/contract/instruments';
import type { Knex } from 'knex';
import type { Client } from 'pg';

const CHANNEL = 'zero_lash_live';
const RECONNECT_MS = 2000;

type Listener = (event: LiveEvent) => void;

/**
 * Tells every process on the database that something changed, once the transaction it happened in has been committed.
 */
export async function announce(db: Knex, event: LiveEvent): Promise<void> {
  await db.raw('select pg_notify(?, ?)', [CHANNEL, JSON.stringify(event)]);
}

/**
 * Passes on what changed: from this process and, through the database, from every other. It listens from the first
 * subscriber on, on a connection of its own.
 */
export class LiveBus {
  readonly #db: Knex;
  readonly #listeners = new Set<Listener>();
  #client: Client | null = null;
  #opening: Promise<void> | null = null;
  #closed = false;

  constructor(db: Knex) {
    this.#db = db;
  }

  /** Hears every event from now on, until the function that comes back is called. */
  async subscribe(listener: Listener): Promise<() => void> {
    this.#listeners.add(listener);
    this.#opening ??= this.#listen();
    await this.#opening;
    return () => this.#listeners.delete(listener);
  }

  /** Tells the listeners of this process only. */
  tellHere(event: LiveEvent): void {
    for (const listener of this.#listeners) listener(event);
  }

  async close(): Promise<void> {
    this.#closed = true;
    this.#listeners.clear();
    await this.#opening;
    await this.#client?.end();
  }

  /** Listens on a connection of its own, and takes it up again whenever it is lost. */
  async #listen(): Promise<void> {
    try {
      const client = (await this.#db.client.acquireRawConnection()) as Client;
      client.on('notification', ({ payload }) => {
        if (payload) this.tellHere(JSON.parse(payload) as LiveEvent);
      });
      client.once('error', () => {
        this.#client = null;
        this.#listenLater();
      });
      await client.query(`listen ${CHANNEL}`);
      this.#client = client;
    } catch {
      this.#listenLater();
    }
  }

  #listenLater(): void {
    if (this.#closed) return;
    setTimeout(() => {
      if (!this.#closed) this.#opening = this.#listen();
    }, RECONNECT_MS).unref();
  }
}
