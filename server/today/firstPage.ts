import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { FastifyInstance } from 'fastify';
import { readSession } from '../people/store.ts';
import { todayAsJson } from './routes.ts';

const PLACE = '<!--ahead-->';

/**
 * Serves the first page with what it shows already in it, for whoever is signed in: the page need not ask for it again
 * once its code has come. The data is JSON in a block that no browser runs. Where the data cannot be had the page comes
 * without it, and asks for it itself until it can.
 */
export async function firstPage(app: FastifyInstance, { root }: { readonly root: string }): Promise<void> {
  const [before = '', after = ''] = (await readFile(join(root, 'index.html'), 'utf8')).split(PLACE);
  app.setErrorHandler((error, request, reply) => {
    request.log.warn({ err: error }, 'the first page goes out without its data');
    return reply
      .code(200)
      .type('text/html; charset=utf-8')
      .header('cache-control', 'no-store')
      .send(before + after);
  });
  app.get('/', { config: { open: true } }, async (request, reply) => {
    void reply.type('text/html; charset=utf-8').header('cache-control', 'no-store');
    if (!request.person) return before + after;
    const session = JSON.stringify(await readSession(app.db, request.person));
    const data = `{"session":${session},"today":${await todayAsJson(app, request.session.versions)}}`;
    return `${before}<script type="application/json" id="preload">${data.replaceAll('<', '\\u003c')}</script>${after}`;
  });
}
