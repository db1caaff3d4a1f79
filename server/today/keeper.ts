import type { Knex } from 'knex';
import { dayIn, knownZone } from '../clock.ts';
import { readToday } from './store.ts';

/**
 * Keeps the last answer for as long as it is still the truth.
 *
 * The database's snapshot names every transaction that can be seen. While it reads the same, nothing anybody could see
 * has changed, whichever process wrote it, and neither has the answer; so asking for the snapshot is enough. Whoever
 * comes while it is being asked for waits for the next asking, which begins after they came: one question serves all
 * who wait, and nobody is told less than was written when they asked.
 */
export class TodayKeeper {
  readonly #db: Knex;
  #kept: { readonly mark: string; readonly answer: Promise<string> } | null = null;
  #asking: Promise<string> | null = null;
  #next: Promise<string> | null = null;

  constructor(db: Knex) {
    this.#db = db;
  }

  /** Today as JSON. */
  read(): Promise<string> {
    if (!this.#asking) return this.#ask();
    this.#next ??= this.#asking.then(
      () => this.#askNext(),
      () => this.#askNext(),
    );
    return this.#next;
  }

  #askNext(): Promise<string> {
    this.#next = null;
    return this.#ask();
  }

  #ask(): Promise<string> {
    const asking = this.#answer();
    this.#asking = asking;
    const settle = () => {
      if (this.#asking === asking) this.#asking = null;
    };
    asking.then(settle, settle);
    return asking;
  }

  async #answer(): Promise<string> {
    const { rows } = await this.#db.raw(
      'select pg_current_snapshot()::text as snapshot, (select zone from shop) as zone',
    );
    const { snapshot, zone } = rows[0] as { snapshot: string; zone: string | null };
    const day = dayIn(knownZone(zone));
    const mark = `${day} ${snapshot}`;
    if (this.#kept?.mark !== mark) {
      const answer = readToday(this.#db, day).then((today) => JSON.stringify(today));
      this.#kept = { mark, answer };
      answer.catch(() => {
        if (this.#kept?.mark === mark) this.#kept = null;
      });
    }
    return this.#kept.answer;
  }
}
