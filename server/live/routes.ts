import { id } from '@zero-lash/contract/values';
import type { FastifyInstance, FastifyRequest } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { seqOf } from '../builds/read.ts';
import { clock } from '../clock.ts';
import { Refusal } from '../plugins/errors.ts';
import { personOf } from '../plugins/signIn.ts';
import type { LiveBus, ToldEvent } from '../plugins/bus.ts';

const HEARTBEAT_MS = 15_000;
/** How often who does not follow a build is told that something was done in one. */
const WORK_EVERY_MS = 1000;
/** The longest a timer can run. */
const LONGEST_MS = 2 ** 31 - 1;

/**
 * Server-sent events: what changed in one build, and what a gauge taken by one device says. A stream ends with the
 * session it was opened in, with any change to the person, and with the link to the database: the browser then comes
 * again and fetches what it missed.
 */
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
    '/live',
    { schema: { querystring: z.object({ build: id.optional(), device: id.optional() }) } },
    async (request, reply) => {
      if (!bus.linked) throw new Refusal('database_away');
      const isOver = overFor(request, app.sessionMark(request.session.sessionId));
      const { build, device } = request.query;
      // heard from here on, and told how far the build is: between the two nothing falls through
      const early: ToldEvent[] = [];
      let tell = (event: ToldEvent) => void early.push(event);
      const quiet = bus.quietFor;
      const leave = bus.subscribe((event) => tell(event));
      const seq = build && (await seqOf(app.db, build).catch(gone(leave)));
      reply.hijack();
      const { raw } = reply;
      // whoever went away meanwhile is not told that they did
      if (raw.destroyed) return leave();
      raw.writeHead(200, {
        'content-type': 'text/event-stream',
        'cache-control': 'no-cache, no-transform',
        'x-accel-buffering': 'no',
        // a stream that ends leaves no connection behind that the server's own end would wait for
        connection: 'close',
      });
      raw.write(': here\n\n');
      const unheard = bus.whenLost(end);
      const heartbeat = setInterval(() => raw.write(': still here\n\n'), HEARTBEAT_MS);
      let worked: ReturnType<typeof setTimeout> | undefined;
      const runsOut = setTimeout(end, Math.min(LONGEST_MS, millisecondsLeft(request)));
      function end() {
        clearInterval(heartbeat);
        clearTimeout(runsOut);
        clearTimeout(worked);
        leave();
        unheard();
        streams.delete(end);
        raw.end();
      }
      streams.add(end);
      request.raw.once('close', end);
      const send = (event: ToldEvent) => raw.write(`data: ${JSON.stringify(event)}\n\n`);
      tell = (event) => {
        if (isOver(event)) end();
        // of another build it is only said that there was something, and not at every tap
        else if (event.kind === 'build' && event.build !== build)
          worked ??= setTimeout(tellWork, WORK_EVERY_MS);
        else if (isFor(event, build, device)) send(event);
      };
      function tellWork() {
        worked = undefined;
        send({ kind: 'changed', topics: ['work'], write: null });
      }
      tell({ kind: 'quiet', ms: quiet });
      if (build) tell({ kind: 'here', build, seq: seq as number });
      early.forEach(tell);
    },
  );
  done();
}

/** Stops listening before it passes a failure on. */
const gone = (leave: () => void) => (error: unknown) => {
  leave();
  throw error;
};

/** Says of what is told whether it ends the session a request came in. */
function overFor(request: FastifyRequest, session: string): (event: ToldEvent) => boolean {
  const { id: person } = personOf(request);
  return (event) =>
    (event.kind === 'session-ended' && event.session === session) ||
    (event.kind === 'person-changed' && event.person === person);
}

function isFor(event: ToldEvent, build: string | undefined, device: string | undefined): boolean {
  if (event.kind === 'session-ended' || event.kind === 'person-changed') return false;
  if ('build' in event) return event.build === build;
  return event.kind !== 'gauge' || event.device === device;
}

function millisecondsLeft(request: FastifyRequest): number {
  const ends = request.session.cookie.expires;
  return ends ? Math.max(0, ends.getTime() - clock.now().getTime()) : LONGEST_MS;
}
