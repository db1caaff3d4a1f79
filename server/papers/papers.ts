import { Piscina } from 'piscina';
import { Refusal } from '../plugins/errors.ts';
import type { Paper } from './thread.ts';

declare module 'fastify' {
  interface FastifyInstance {
    /** draws what is printed, beside everything else */
    papers: Papers;
  }
}

const WAITING_AT_ONCE = 20;
const GOES_IDLE_MS = 30_000;
/** How long one paper may take, waiting for its turn included. */
const WITHIN_MS = 15_000;

/**
 * Draws papers on a thread of their own: however long one takes, no other request waits for it.
 */
export class Papers {
  readonly #pool = new Piscina({
    filename: new URL('./thread.ts', import.meta.url).href,
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
  async draw<Name extends keyof Paper>(name: Name, from: Paper[Name]): Promise<Buffer> {
    if (this.#pool.queueSize >= WAITING_AT_ONCE) throw new Refusal('busy');
    try {
      const drawn = (await this.#pool.run(
        { name, from },
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
