import { setTimeout as pause } from 'node:timers/promises';
import type { LiveEvent, Topic } from '@zero-lash/contract/live';
import type { FastifyBaseLogger } from 'fastify';
import type { Knex } from 'knex';
import type { Client } from 'pg';
import { inBackground } from '../background.ts';

const CHANNEL = 'zero_lash_live';
const FIRST_PAUSE_MS = 250;
const LONGEST_PAUSE_MS = 5000;
/** How often the link is asked whether it still holds: one that broke without a word is found out. */
const ASK_EVERY_MS = 20_000;

/** What servers tell each other of who may still listen; no browser is told. */
export type DoorEvent =
  | { readonly kind: 'session-ended'; readonly session: string }
  | { readonly kind: 'person-changed'; readonly person: string };

/** Everything that is told on the database's own channel. */
export type ToldEvent = LiveEvent | DoorEvent;
type Listener = (event: ToldEvent) => void;

/**
 * Tells every process on the database what changed, once the transaction it happened in has been committed.
 */
export async function announce(db: Knex, ...events: readonly ToldEvent[]): Promise<void> {
  await db.raw('select pg_notify(?, told) from unnest(?::text[]) told', [
    CHANNEL,
    events.map((event) => JSON.stringify(event)),
  ]);
}

/**
 * Tells every browser what it may have to ask for again, once the transaction has been committed.
 *
 * @param write the key of the write that did it; null where no person wrote
 */
export async function announceChange(
  db: Knex,
  topics: readonly Topic[],
  write: string | null = null,
): Promise<void> {
  if (topics.length > 0) await announce(db, { kind: 'changed', topics: [...topics], write });
}

/**
 * Passes on what changed: from this process and, through the database, from every other. It listens on a connection of
 * its own, and takes it up again whenever it is lost; what was told meanwhile nobody heard, so those who must not miss
 * anything are told of the loss.
 */
export class LiveBus {
  readonly #db: Knex;
  readonly #log: FastifyBaseLogger;
  readonly #listeners = new Set<Listener>();
  readonly #bereft = new Set<() => void>();
  readonly #closing = new AbortController();
  #client: Client | null = null;
  /** when it last heard of a change, or began to listen */
  #changedAt = Date.now();
  #running: Promise<void> | null = null;

  constructor(db: Knex, log: FastifyBaseLogger) {
    this.#db = db;
    this.#log = log;
  }

  /** Begins to listen to the database, and goes on until it is closed. */
  start(): void {
    this.#running ??= this.#listenOn();
  }

  /** For how many ms nothing was changed that pages show: as long as it has listened, at the most. */
  get quietFor(): number {
    return Date.now() - this.#changedAt;
  }

  /** Whether what other processes tell is heard now. */
  get linked(): boolean {
    return this.#client !== null;
  }

  /** Hears every event from now on, until the function that comes back is called. */
  subscribe(listener: Listener): () => void {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  }

  /** Is told when the link to the database is lost, until the function that comes back is called. */
  whenLost(told: () => void): () => void {
    this.#bereft.add(told);
    return () => this.#bereft.delete(told);
  }

  /** Tells the listeners of this process only. */
  tellHere(event: ToldEvent): void {
    if (event.kind === 'changed' || event.kind === 'build') this.#changedAt = Date.now();
    for (const listener of [...this.#listeners]) listener(event);
  }

  async close(): Promise<void> {
    this.#closing.abort();
    this.#listeners.clear();
    this.#bereft.clear();
    await this.#client?.end().catch(() => undefined);
    await this.#running;
  }

  async #listenOn(): Promise<void> {
    const { signal } = this.#closing;
    let ms = FIRST_PAUSE_MS;
    while (!signal.aborted) {
      try {
        await this.#listenOnce();
        ms = FIRST_PAUSE_MS;
      } catch (err) {
        this.#log.warn({ err }, 'what changes elsewhere is not heard: the database is not reached');
        ms = Math.min(ms * 2, LONGEST_PAUSE_MS);
      }
      await pause(ms, undefined, { signal, ref: false }).catch(() => undefined);
    }
  }

  /** Listens for as long as one connection holds. */
  async #listenOnce(): Promise<void> {
    const client = (await this.#db.client.acquireRawConnection()) as Client;
    const lost = new Promise<void>((resolve) => {
      client.once('error', () => resolve());
      client.once('end', () => resolve());
    });
    client.on('notification', ({ payload }) => {
      if (payload) this.#hear(payload);
    });
    const asking = setInterval(() => {
      inBackground(
        this.#log,
        'asking for the link',
        client.query('select 1').catch(() => client.end()),
      );
    }, ASK_EVERY_MS).unref();
    try {
      await client.query(`listen ${CHANNEL}`);
      if (this.#closing.signal.aborted) return;
      this.#client = client;
      this.#changedAt = Date.now();
      await lost;
    } finally {
      clearInterval(asking);
      const was = this.#client !== null;
      this.#client = null;
      await client.end().catch(() => undefined);
      if (was) for (const told of [...this.#bereft]) told();
    }
  }

  #hear(payload: string): void {
    try {
      this.tellHere(JSON.parse(payload) as ToldEvent);
    } catch (err) {
      this.#log.warn({ err }, 'what another server told could not be read');
    }
  }
}
