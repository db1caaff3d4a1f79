import { id } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import type { LiveBus } from './bus.ts';

const HEARTBEAT_MS = 15_000;

/** Server-sent events: what changed in one build, and what a gauge taken by one device says. */
export function liveRoutes(
  instance: FastifyInstance,
  { bus }: { readonly bus: LiveBus },
  done: () => void,
): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const streams = new Set<() => void>();
  app.addHook('preClose', (next) => {
    for (const end of streams) end();
    next();
  });

  app.get(
    '/api/live',
    { schema: { querystring: z.object({ build: id.optional(), device: id.optional() }) } },
    async (request, reply) => {
      const { build, device } = request.query;
      reply.hijack();
      const { raw } = reply;
      raw.writeHead(200, {
        'content-type': 'text/event-stream',
        'cache-control': 'no-cache, no-transform',
        'x-accel-buffering': 'no',
      });
      raw.write(': here\n\n');
      const leave = await bus.subscribe((event) => {
        if ('build' in event && event.build !== build) return;
        if (event.kind === 'gauge' && event.device !== device) return;
        raw.write(`data: ${JSON.stringify(event)}\n\n`);
      });
      const heartbeat = setInterval(() => raw.write(': still here\n\n'), HEARTBEAT_MS);
      const end = () => {
        clearInterval(heartbeat);
        leave();
        streams.delete(end);
        raw.end();
      };
      streams.add(end);
      request.raw.once('close', end);
    },
  );
  done();
}
