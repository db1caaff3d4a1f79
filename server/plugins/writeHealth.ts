import type { Health } from '@zero-lash/contract/health';
import type { Knex } from 'knex';
import { databaseRefusalCode } from './databaseErrors.ts';

/** How often a running server tries whether it can write. */
export const TRY_EVERY_MS = 10_000;
const READ_ONLY = '25006';

/**
 * Whether this server can write, by what came of the last try or of the last write that failed. A disk that is full, or a database
 * that takes no writes, answers questions as ever: nobody would know before a reading is lost.
 */
class Writes {
  #last: Health['writes'] = 'untried';

  /** What came of the last try. */
  get last(): Health['writes'] {
    return this.#last;
  }

  /** Writes one row, and knows from then on whether that can be done. */
  async attempt(db: Knex): Promise<void> {
    try {
      await db('write_tries').update({ at: db.fn.now() });
      this.#last = 'fine';
    } catch (error) {
      this.failed(error as { code?: string });
    }
  }

  /** A write failed: what of, where it is of what keeps everybody from writing. */
  failed(error: { readonly code?: string }): void {
    const code = databaseRefusalCode(error);
    if (code === 'cannot_write') this.#last = error.code === READ_ONLY ? 'read-only' : 'full';
    else if (code === 'database_away') this.#last = 'away';
  }
}

export const writes = new Writes();
