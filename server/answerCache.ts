import { AsyncLocalStorage } from 'node:async_hooks';
import type { Day } from '@zero-lash/core/rechecks';
import type { FastifyReply } from 'fastify';
import type { Knex } from 'knex';
import { readNoted, readVersions, type Versions } from './tableVersions.ts';

/** What is kept at the most, in characters of answers: about what a busy shop's tablets look at in a day. */
const MOST_KEPT = 16_000_000;

interface KeptAnswer {
  /** what could be seen as it was begun to be read */
  readonly versions: Versions;
  readonly answer: Promise<string>;
  /** the tables it was read from; null for as long as it is read */
  tables: ReadonlySet<string> | null;
  /** characters, once it is there */
  size: number;
}

/** The tables that what is read just now was read from; `other` where nobody notes that one of them is written to. */
interface Reading {
  readonly tables: Set<string>;
  other: string | null;
}

/** A word that may be a table's name. */
const WORD = /[a-z_]+/g;

/**
 * Keeps answers for as long as they are still the truth.
 *
 * Every write says in its own transaction which tables it wrote to, and every answer knows by itself from which tables it was read: the
 * names in the queries that were asked for it, whichever those were. While none of them was written to, whichever process does it, nothing
 * that anybody could see of the answer has changed. A name that only looks like a table's makes an answer go sooner than it must, and
 * never stay longer.
 */
export class AnswerCache {
  readonly #db: Knex;
  /** by name, the one asked for longest ago first */
  readonly #kept = new Map<string, KeptAnswer>();
  readonly #reading = new AsyncLocalStorage<Reading>();
  #size = 0;
  readonly #most: number;
  #schema: Awaited<ReturnType<typeof readNoted>> | null = null;

  /** @param most how many characters are kept at the most */
  constructor(db: Knex, most = MOST_KEPT) {
    this.#db = db;
    this.#most = most;
    db.on('query', ({ sql }: { readonly sql: string }) => {
      const now = this.#reading.getStore();
      if (now) this.#noteTables(sql, now);
    });
  }

  /**
   * An answer as JSON: the one that is kept, where it still holds.
   *
   * @param name tells it from every other answer; nothing of whoever asks may go into it
   * @param make reads it again
   * @param seen what could be seen after it was asked for, where that is known already
   */
  async read(name: string, make: (day: Day) => Promise<unknown>, seen?: Versions): Promise<string> {
    // known before anything is read; from here on nothing is waited for, so that of many who ask at once one reads
    this.#schema ??= await readNoted(this.#db);
    const versions = seen ?? (await readVersions(this.#db));
    const known = this.#kept.get(name);
    if (known && holds(known, versions)) {
      this.#kept.delete(name);
      this.#kept.set(name, known);
      return known.answer;
    }
    return this.#make(name, versions, make);
  }

  /** Answers a request with what is kept for its address; whoever asks the same is answered the same. */
  async answer(
    reply: FastifyReply,
    make: (day: Day) => Promise<unknown>,
    name = reply.request.url,
  ): Promise<never> {
    const text = await this.read(name, make, reply.request.session?.versions);
    void reply.type('application/json; charset=utf-8');
    // already the JSON of what the route says it answers
    return text as never;
  }

  #make(name: string, versions: Versions, make: (day: Day) => Promise<unknown>): Promise<string> {
    const from: Reading = { tables: new Set(), other: null };
    // what is awaited in there is asked in there too: a query is sent only as somebody waits for it
    const answer = this.#reading.run(from, async () => {
      const value = await make(versions.day);
      if (from.other !== null)
        throw new Error(`${name} is read from ${from.other}, of which nothing is kept`);
      return JSON.stringify(value);
    });
    const fresh: KeptAnswer = { versions, answer, tables: null, size: 0 };
    this.#forget(name);
    this.#kept.set(name, fresh);
    answer.then(
      ({ length }) => {
        fresh.tables = from.tables;
        this.#weigh(name, fresh, length);
      },
      () => {
        if (this.#kept.get(name) === fresh) this.#forget(name);
      },
    );
    return answer;
  }

  #noteTables(sql: string, from: Reading): void {
    const { noted, others } = this.#schema!;
    for (const [word] of sql.matchAll(WORD))
      if (noted.has(word)) from.tables.add(word);
      else if (others.has(word)) from.other = word;
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
}

/** Whether an answer is what would be read again: none of its tables was written to since. */
function holds({ versions, tables }: KeptAnswer, now: Versions): boolean {
  if (versions.day !== now.day) return false;
  // while it is read nobody knows from which tables it will be
  const names = tables ?? new Set([...Object.keys(versions.tables), ...Object.keys(now.tables)]);
  for (const name of names) if (versions.tables[name] !== now.tables[name]) return false;
  return true;
}
