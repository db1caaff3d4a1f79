import { OnThread } from '../onThread.ts';
import { Refusal } from '../plugins/errors.ts';
import type { Looked } from './thread.ts';
import type { LookedThrough } from './unpack.ts';

declare module 'fastify' {
  interface FastifyInstance {
    /** looks through records that are sent in, beside everything else */
    records: RecordReader;
  }
}

/**
 * Looks through engines' records on a thread of their own: however large one is, no other request waits for it.
 */
export class RecordReader {
  readonly #thread = new OnThread<Uint8Array, Looked>({
    module: 'records/thread',
    withinMs: 60_000,
  });

  /**
   * @throws Refusal `bad_record` that says where the file is wrong, `too_long` where it does not come in time, `busy` where too
   * many wait already
   */
  async look(zip: Uint8Array): Promise<LookedThrough> {
    const looked = await this.#thread.run(zip);
    if ('refused' in looked) throw new Refusal('bad_record', looked.refused);
    return looked.record;
  }

  close(): Promise<void> {
    return this.#thread.close();
  }
}
