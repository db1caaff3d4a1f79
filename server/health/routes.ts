import type { FastifyInstance } from 'fastify';
import { health } from '@zero-lash/contract/health';
import { clock } from '../clock.ts';
import type { Startup } from './startup.ts';
import { writes } from '../plugins/writeHealth.ts';

/** How long the database may take to say a word before it counts as away. */
const PATIENCE_MS = 2000;

/**
 * Says whether this server can do its work: 200 where it can, 503 with which part is missing where it cannot. It asks
 * for no session, so that a supervisor may look.
 */
export function healthRoutes(
  app: FastifyInstance,
  { startup }: { readonly startup: Startup },
  done: () => void,
): void {
  app.get(
    '/api/health',
    { schema: { response: { 200: health, 503: health } }, config: { open: true }, logLevel: 'silent' },
    async (_request, reply) => {
      const database = await Promise.race([
        app.db.raw('select 1').then(
          () => 'here' as const,
          () => 'away' as const,
        ),
        new Promise<'away'>((resolve) => setTimeout(resolve, PATIENCE_MS, 'away').unref()),
      ]);
      const ok = database === 'here' && startup.awake;
      void reply.code(ok ? 200 : 503).header('cache-control', 'no-store');
      return { ok, database, awake: startup.awake, writes: writes.last, clockAhead: clock.ahead() };
    },
  );
  done();
}
