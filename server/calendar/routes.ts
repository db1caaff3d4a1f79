import { createHash } from 'node:crypto';
import { calendarFeed, newCalendarFeed, type CalendarFeed } from '@zero-lash/contract/calendar';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { shopDay } from '../clock.ts';
import { Refusal } from '../plugins/errors.ts';
import { personOf } from '../plugins/signIn.ts';
import { writeRoute } from '../plugins/writeRoute.ts';
import { keyed } from '../keyed.ts';
import { addFeed, ownerOfFeed, readFeeds, withdrawFeed } from './store.ts';
import { askedAt, printedOrigin } from '../share/origin.ts';
import { writeCalendar } from './write.ts';

const hashOf = (token: string) => createHash('sha256').update(token).digest();

/** Rechecks as iCalendar: a file for one, and a private address of one's own for all, which can be withdrawn. */
export function calendarRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const params = z.object({ id });
  const send = (reply: FastifyReply, name: string, text: string) =>
    reply
      .header('content-disposition', `inline; filename="${name}.ics"`)
      .header('cache-control', 'private, no-store')
      .type('text/calendar; charset=utf-8')
      .send(text);

  const linksTo = async (request: FastifyRequest) =>
    (await printedOrigin(app.db, request)) ?? askedAt(request);

  app.get('/rechecks/:id/calendar', { schema: { params } }, async (request, reply) => {
    const text = await writeCalendar(app.db, {
      ...{ only: request.params.id, today: await shopDay(app.db) },
      origin: await linksTo(request),
    });
    if (text === null) throw new Refusal('not_found', { detail: 'No such recheck is planned.' });
    return send(reply, 'recheck', text);
  });

  // whoever knows the address is let in, as a calendar program cannot sign in; it reads nothing but days and names
  app.get(
    '/calendar/:token',
    { schema: { params: z.object({ token: z.string().max(80) }) }, config: { open: true } },
    async (request, reply) => {
      const token = request.params.token.replace(/\.ics$/, '');
      if (!(await ownerOfFeed(app.db, hashOf(token))))
        throw new Refusal('not_found', { detail: 'There is no such calendar, or it was withdrawn.' });
      const text = await writeCalendar(app.db, {
        ...{ today: await shopDay(app.db), origin: await linksTo(request) },
      });
      return send(reply, 'rechecks', text!);
    },
  );

  app.get('/calendar-feeds', { schema: { response: { 200: z.array(calendarFeed) } } }, (request) =>
    readFeeds(app.db, personOf(request).id),
  );

  // made of the write's own key and a secret that is in no database: a retry gets the same, and nothing keeps it
  const tokenOf = (key: string) => keyed(app.secret, 'calendar', key);
  const withPath = (feed: CalendarFeed, key: string) => ({
    ...feed,
    path: `/api/calendar/${tokenOf(key)}.ics`,
  });

  writeRoute(app, 'POST /calendar-feeds', {
    changes: ['feeds'],
    answer: newCalendarFeed,
    role: 'viewer',
    kept: {
      of: ({ path: _, ...feed }) => feed,
      again: (_db, feed: never, key) => Promise.resolve(withPath(feed, key)),
    },
    work: async (db, { context: { key, personId } }) =>
      withPath(await addFeed(db, personId, hashOf(tokenOf(key))), key),
  });

  writeRoute(app, 'DELETE /calendar-feeds/:id', {
    changes: ['feeds'],
    answer: z.array(calendarFeed),
    role: 'viewer',
    work: async (db, { id: feed, context: { personId } }) => {
      await withdrawFeed(db, feed, personId);
      return readFeeds(db, personId);
    },
  });
  done();
}
