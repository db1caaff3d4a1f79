import { AsyncLocalStorage } from 'node:async_hooks';
import type { Day } from '@zero-lash/core/rechecks';
import type { FastifyReply } from 'fastify';
import type { Knex } from 'knex';
import { readNoted, tablesIn, type Noted, type TableVersions, type Versions } from './tableVersions.ts';

/** What is kept at the most, in bytes of answers: about what a busy shop's tablets look at in a day. */
const MOST_KEPT = 16_000_000;

interface KeptAnswer {
  /** what could be seen as it was begun to be read */
  readonly versions: Versions;
  /** JSON, as it is sent: a month of rechecks is not encoded again for each who asks */
  readonly answer: Promise<Buffer>;
  /** the tables it was read from; null for as long as it is read */
  tables: ReadonlySet<string> | null;
  /** bytes, once it is there */
  size: number;
}

/** The tables that what is read just now was read from; `other` where nobody notes that one of them is written to. */
interface Reading {
  readonly tables: Set<string>;
  other: string | null;
}

/** Keeps a part of an answer by itself: it is read again only where its own tables were written to. */
export type KeepPart = <Part>(name: string, make: (day: Day) => Promise<Part>) => Promise<Part>;

type Make = (day: Day, part: KeepPart) => Promise<unknown>;

/**
 * Keeps answers for as long as they are still the truth.
 *
 * Every write says in its own transaction which tables it wrote to, and every answer knows by itself from which tables it was read: the
 * names in the queries that were asked for it, whichever those were. While none of them was written to, whichever process does it, nothing
 * that anybody could see of the answer has changed.
 */
export class AnswerCache {
  readonly #db: Knex;
  readonly #versions: TableVersions;
  /** by name, the one asked for longest ago first */
  readonly #kept = new Map<string, KeptAnswer>();
  readonly #reading = new AsyncLocalStorage<Reading>();
  readonly #most: number;
  #size = 0;
  #schema: Noted | null = null;

  /** @param most how many bytes are kept at the most */
  constructor(db: Knex, versions: TableVersions, most = MOST_KEPT) {
    this.#db = db;
    this.#versions = versions;
    this.#most = most;
    db.on('query', ({ sql }: { readonly sql: string }) => {
      const now = this.#reading.getStore();
      if (!now || !this.#schema) return;
      const { tables, other } = tablesIn(sql, this.#schema);
      for (const table of tables) now.tables.add(table);
      now.other ??= other;
    });
  }

  /**
   * An answer as JSON: the one that is kept, where it still holds.
   *
   * @param name tells it from every other answer; nothing of whoever asks may go into it
   * @param make reads it again
   * @param seen what could be seen after it was asked for, where that is known already
   */
  async read(name: string, make: Make, seen?: Versions): Promise<string> {
    return (await this.#read(name, make, seen)).toString();
  }

  async #read(name: string, make: Make, seen?: Versions): Promise<Buffer> {
    // known before anything is read; from here on nothing is waited for, so that of many who ask at once one reads
    this.#schema ??= await readNoted(this.#db);
    return this.#get(name, make, seen ?? (await this.#versions.now())).answer;
  }

  /** Answers a request with what is kept for its address; whoever asks the same is answered the same. */
  async answer(reply: FastifyReply, make: Make, name = reply.request.url): Promise<never> {
    const bytes = await this.#read(name, make, reply.request.session?.versions);
    void reply.type('application/json; charset=utf-8');
    // already the JSON of what the route says it answers
    return bytes as never;
  }

  #get(name: string, make: Make, versions: Versions): KeptAnswer {
    const known = this.#kept.get(name);
    if (known && holds(known, versions)) {
      this.#kept.delete(name);
      this.#kept.set(name, known);
      return known;
    }
    const from: Reading = { tables: new Set(), other: null };
    const part: KeepPart = async (partName, makePart) => {
      const kept = this.#get(`${name} ${partName}`, makePart, versions);
      const bytes = await kept.answer;
      for (const table of kept.tables ?? []) from.tables.add(table);
      return JSON.parse(bytes.toString()) as never;
    };
    // what is awaited in there is asked in there too: a query is sent only as somebody waits for it
    const answer = this.#reading.run(from, async () => {
      const value = await make(versions.day, part);
      if (from.other !== null)
        throw new Error(`${name} is read from ${from.other}, of which nothing is kept`);
      return Buffer.from(JSON.stringify(value));
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
    return fresh;
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
  if (versions.tables === now.tables) return true;
  // while it is read nobody knows from which tables it will be
  const names = tables ?? new Set([...Object.keys(versions.tables), ...Object.keys(now.tables)]);
  for (const name of names) if (versions.tables[name] !== now.tables[name]) return false;
  return true;
}
