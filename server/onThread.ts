import { extname } from 'node:path';
import { Piscina } from 'piscina';
import { Refusal } from './plugins/errors.ts';

/** From its sources the server runs as they are written, and built as it was built. */
const ENDING = extname(new URL(import.meta.url).pathname);

const WAITING_AT_ONCE = 20;
const GOES_IDLE_MS = 30_000;

/** What a thread is for. */
export interface ThreadOptions {
  /** the module whose default export does one job, from the server's folder and without its ending, such as `records/thread` */
  readonly module: string;
  /** ms that one job may take, waiting for its turn included */
  readonly withinMs: number;
}

/**
 * Does one kind of work on a thread of its own: however long a job takes, no other request waits for it. The thread is begun when
 * the first job comes, and ends when there was none for a while.
 *
 * @example const papers = new OnThread<Job, Uint8Array>({ module: 'paperThread', withinMs: 15_000 });
 */
export class OnThread<Job, Done> {
  readonly #pool: Piscina;
  readonly #withinMs: number;

  constructor({ module, withinMs }: ThreadOptions) {
    this.#withinMs = withinMs;
    this.#pool = new Piscina({
      ...{ filename: new URL(`./${module}${ENDING}`, import.meta.url).href, minThreads: 0, maxThreads: 1 },
      ...(ENDING === '.ts' ? { execArgv: ['--import', 'tsx'] } : {}),
      ...{ maxQueue: WAITING_AT_ONCE, idleTimeout: GOES_IDLE_MS },
    });
  }

  /**
   * Does a job. What it throws comes back as an ordinary error with its message and its own fields.
   *
   * @throws Refusal `too_long` where it does not come in time, `busy` where too many wait already
   */
  async run(job: Job): Promise<Done> {
    if (this.#pool.queueSize >= WAITING_AT_ONCE) throw new Refusal('busy');
    try {
      return (await this.#pool.run(job, { signal: AbortSignal.timeout(this.#withinMs) })) as Done;
    } catch (error) {
      if ((error as Error).name === 'AbortError') throw new Refusal('too_long');
      throw error;
    }
  }

  close(): Promise<void> {
    return this.#pool.destroy();
  }
}
