import { newLedger, newPatternParts } from '@zero-lash/contract/parts';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { addEntry } from '../entries/addEntry.ts';
import { buildWriteRoute } from '../builds/buildWriteRoute.ts';
import { keepPatternParts } from './keep.ts';
import { readPartsList } from './store.ts';

/** What is there is counted, whatever a pattern would have expected. */
const nothingStrange = () => null;

export function partsRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();

  buildWriteRoute(app, 'POST /builds/:id/ledger', {
    body: newLedger,
    work: (db, { id: build, body, context }) => addEntry(db, build, 'ledger', body, context, nothingStrange),
  });

  buildWriteRoute(app, 'POST /builds/:id/pattern-parts', {
    body: newPatternParts,
    work: (db, { id: build, body, context }) => keepPatternParts(db, build, body, context),
  });

  app.get('/builds/:id/parts-list', { schema: { params: z.object({ id }) } }, async (request, reply) => {
    const list = await readPartsList(app.db, request.params.id);
    return reply
      .header('content-disposition', 'inline; filename="parts.pdf"')
      .type('application/pdf')
      .send(await app.papers.draw('list', list));
  });
  done();
}
