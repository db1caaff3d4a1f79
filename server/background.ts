import type { FastifyBaseLogger } from 'fastify';

/**
 * Owns a promise that nobody waits for: what it fails with is written to the log, and stops nothing else.
 *
 * @example inBackground(app.log, 'reading the gauges', listener.readGauges());
 */
export function inBackground(log: FastifyBaseLogger, what: string, work: Promise<unknown>): void {
  work.catch((err: unknown) => log.warn({ err }, `${what} failed`));
}

/** Does something at once and then every so often, one at a time, until the function that comes back is called. */
export function everySoOften(
  log: FastifyBaseLogger,
  what: string,
  everyMs: number,
  work: () => Promise<unknown>,
): () => void {
  let timer: NodeJS.Timeout | undefined;
  let ended = false;
  const once = () => {
    inBackground(
      log,
      what,
      work().finally(() => {
        if (!ended) timer = setTimeout(once, everyMs).unref();
      }),
    );
  };
  once();
  return () => {
    ended = true;
    clearTimeout(timer);
  };
}
