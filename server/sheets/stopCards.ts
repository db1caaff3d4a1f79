import type { SheetRevision } from '@zero-lash/contract/sheets';
import type { PositionSchool } from '@zero-lash/core/turning';
import { Piscina } from 'piscina';
import { Refusal } from '../plugins/errors.ts';

const WAITING_AT_ONCE = 20;
const GOES_IDLE_MS = 30_000;
/** How long one card may take, waiting for its turn included. */
const WITHIN_MS = 15_000;

/**
 * Draws stop cards on a thread of their own: however long one takes, no other request waits for it.
 */
export class StopCards {
  readonly #pool = new Piscina({
    filename: new URL('./stopCardThread.ts', import.meta.url).href,
    execArgv: ['--import', 'tsx'],
    minThreads: 0,
    maxThreads: 1,
    maxQueue: WAITING_AT_ONCE,
    idleTimeout: GOES_IDLE_MS,
  });

  /**
   * @returns the PDF's bytes
   * @throws Refusal `too_long` where it does not come in time, `busy` where too many wait already
   */
  async draw(sheet: SheetRevision, school: PositionSchool): Promise<Buffer> {
    if (this.#pool.queueSize >= WAITING_AT_ONCE) throw new Refusal('busy');
    try {
      const drawn = (await this.#pool.run(
        { sheet, school },
        { signal: AbortSignal.timeout(WITHIN_MS) },
      )) as Uint8Array;
      return Buffer.from(drawn);
    } catch (error) {
      if ((error as Error).name === 'AbortError') throw new Refusal('too_long');
      throw error;
    }
  }

  close(): Promise<void> {
    return this.#pool.destroy();
  }
}
