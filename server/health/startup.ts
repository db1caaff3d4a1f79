import { setTimeout as pause } from 'node:timers/promises';

const FIRST_PAUSE_MS = 250;
const LONGEST_PAUSE_MS = 5000;

/**
 * Whether a server is ready for its work. It listens from its first moment, so that it can say that it is not, and does
 * what has to be done first for as long as it takes: a database that is not there yet is waited for.
 */
export class Startup {
  #awake = false;
  #tell: () => void = () => undefined;
  /** settles once it is ready */
  readonly done = new Promise<void>((resolve) => {
    this.#tell = resolve;
  });

  constructor(awake = false) {
    if (awake) this.#isReady();
  }

  #isReady(): void {
    this.#awake = true;
    this.#tell();
  }

  get awake(): boolean {
    return this.#awake;
  }

  /**
   * Does what has to be done first, again and again with a growing pause while it fails for a reason that passes.
   *
   * @param passes says of a failure whether waiting may mend it; any other is thrown
   * @param waiting told of the first failure of a row that passes, so that somebody may read why nothing happens
   */
  async wake(
    work: () => Promise<void>,
    passes: (error: unknown) => boolean,
    waiting: (error: unknown) => void,
  ): Promise<void> {
    for (let ms = FIRST_PAUSE_MS; !this.#awake; ms = Math.min(ms * 2, LONGEST_PAUSE_MS)) {
      try {
        await work();
        this.#isReady();
      } catch (error) {
        if (!passes(error)) throw error;
        if (ms === FIRST_PAUSE_MS) waiting(error);
        await pause(ms);
      }
    }
  }
}
