import type { Day } from '@zero-lash/core/rechecks';
import type { FastifyReply } from 'fastify';
import type { Knex } from 'knex';
import { dayIn, knownZone } from './clock.ts';

/** What is kept at the most, in characters of answers: about what a busy shop's tablets look at in a day. */
const MOST_KEPT = 16_000_000;

interface KeptAnswer {
  readonly mark: string;
  readonly answer: Promise<string>;
  /** characters, once it is there */
  size: number;
}

/** What can be seen in the database now, and the day it is in the shop. */
interface Now {
  readonly mark: string;
  readonly day: Day;
}

/**
 * Keeps answers for as long as they are still the truth.
 *
 * The database's snapshot names every transaction that can be seen. While it reads the same, nothing anybody could see
 * has changed, whichever process wrote it, and neither has any answer; so asking for the snapshot is enough. Whoever
 * comes while it is being asked for waits for the next asking, which begins after they came: one question serves all
 * who wait, and nobody is told less than was written when they asked.
 */
export class AnswerCache {
  readonly #db: Knex;
  /** by name, the one asked for longest ago first */
  readonly #kept = new Map<string, KeptAnswer>();
  #size = 0;
  #asking: Promise<Now> | null = null;
  #next: Promise<Now> | null = null;

  readonly #most: number;

  /** @param most how many characters are kept at the most */
  constructor(db: Knex, most = MOST_KEPT) {
    this.#db = db;
    this.#most = most;
  }

  /**
   * An answer as JSON: the one that is kept, where it still holds.
   *
   * @param name tells it from every other answer; nothing of whoever asks may go into it
   * @param make reads it again
   */
  async read(name: string, make: (day: Day) => Promise<unknown>): Promise<string> {
    const { mark, day } = await this.#now();
    const known = this.#kept.get(name);
    if (known?.mark === mark) {
      this.#kept.delete(name);
      this.#kept.set(name, known);
      return known.answer;
    }
    const fresh: KeptAnswer = { mark, answer: make(day).then((value) => JSON.stringify(value)), size: 0 };
    this.#forget(name);
    this.#kept.set(name, fresh);
    fresh.answer.then(
      ({ length }) => this.#weigh(name, fresh, length),
      () => {
        if (this.#kept.get(name) === fresh) this.#forget(name);
      },
    );
    return fresh.answer;
  }

  /** Answers a request with what is kept for its address; whoever asks the same is answered the same. */
  async answer(
    reply: FastifyReply,
    make: (day: Day) => Promise<unknown>,
    name = reply.request.url,
  ): Promise<never> {
    const text = await this.read(name, make);
    void reply.type('application/json; charset=utf-8');
    // already the JSON of what the route says it answers
    return text as never;
  }

  #weigh(name: string, kept: KeptAnswer, size: number): void {
    if (this.#kept.get(name) !== kept) return;
    kept.size = size;
    this.#size += size;
    for (const oldest of this.#kept.keys()) {
      if (this.#size <= this.#most) return;
      this.#forget(oldest);
    }
  }

  #forget(name: string): void {
    this.#size -= this.#kept.get(name)?.size ?? 0;
    this.#kept.delete(name);
  }

  #now(): Promise<Now> {
    if (!this.#asking) return this.#ask();
    this.#next ??= this.#asking.then(
      () => this.#askNext(),
      () => this.#askNext(),
    );
    return this.#next;
  }

  #askNext(): Promise<Now> {
    this.#next = null;
    return this.#ask();
  }

  #ask(): Promise<Now> {
    const asking = this.#look();
    this.#asking = asking;
    const settle = () => {
      if (this.#asking === asking) this.#asking = null;
    };
    asking.then(settle, settle);
    return asking;
  }

  async #look(): Promise<Now> {
    const { rows } = await this.#db.raw(
      'select pg_current_snapshot()::text as snapshot, (select zone from shop) as zone',
    );
    const { snapshot, zone } = rows[0] as { snapshot: string; zone: string | null };
    const day = dayIn(knownZone(zone));
    return { mark: `${day} ${snapshot}`, day };
  }
}
