import { OnThread } from './onThread.ts';
import type { Paper } from './paperThread.ts';

declare module 'fastify' {
  interface FastifyInstance {
    /** draws what is printed, beside everything else */
    papers: Papers;
  }
}

interface Job {
  readonly name: keyof Paper;
  readonly from: Paper[keyof Paper];
}

/**
 * Draws papers on a thread of their own: however long one takes, no other request waits for it.
 */
export class Papers {
  readonly #thread = new OnThread<Job, Uint8Array>({
    module: 'paperThread',
    withinMs: 15_000,
  });

  /**
   * @returns the PDF's bytes
   * @throws Refusal `too_long` where it does not come in time, `busy` where too many wait already
   */
  async draw<Name extends keyof Paper>(name: Name, from: Paper[Name]): Promise<Buffer> {
    return Buffer.from(await this.#thread.run({ name, from }));
  }

  close(): Promise<void> {
    return this.#thread.close();
  }
}
