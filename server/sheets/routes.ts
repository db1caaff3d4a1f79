import type { SheetRevision } from '@zero-lash/contract/sheets';
import { role } from '@zero-lash/contract/pattern';
import {
  draftChange,
  MOST_PICTURE_TEXT,
  MOST_PICTURES,
  newRevision,
  newSheet,
  publication,
  sheetFile,
  sheetRevision,
  sheetSummary,
} from '@zero-lash/contract/sheets';
import { positionSchool } from '@zero-lash/contract/turning';
import { id } from '@zero-lash/contract/values';
import { firstSchool } from '@zero-lash/core/turning';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { writeRoute } from '../plugins/writeRoute.ts';
import type { Kept } from '../plugins/writes.ts';
import { chartPaper } from './chartPaper.ts';
import { withPicturesHeld } from './positionPictures.ts';
import * as read from './read.ts';
import { shopSingleRule } from './singleRule.ts';
import * as store from './store.ts';

/** Bytes of a sheet with as many pictures as it may have. */
const MOST_SHEET = 256 * 1024 + MOST_PICTURES * MOST_PICTURE_TEXT;
const FOR_EVER = 'private, max-age=31536000, immutable';

export function sheetRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const params = z.object({ id });
  /** of a revision's answer only its id is kept for a retry */
  const kept: Kept<SheetRevision> = {
    of: ({ id: revision }) => ({ revision }),
    again: (db, { revision }: { readonly revision: string }) => read.findRevision(db, revision),
  };

  app.get('/sheets', { schema: { response: { 200: z.array(sheetSummary) } } }, (_request, reply) =>
    app.cache.answer(reply, () => read.listSheets(app.db)),
  );

  app.get('/sheets/:id', { schema: { params, response: { 200: z.array(sheetRevision) } } }, (request) =>
    read.findSheet(app.db, request.params.id),
  );

  app.get(
    '/sheet-revisions/:id',
    { schema: { params, response: { 200: sheetRevision } } },
    async (request, reply) => {
      const revision = await read.findRevision(app.db, request.params.id);
      // nothing of a published revision ever changes
      void reply.header('cache-control', revision.status === 'published' ? FOR_EVER : 'no-cache');
      return revision;
    },
  );

  writeRoute(app, 'POST /sheets', {
    changes: ['sheets'],
    body: newSheet,
    answer: sheetRevision,
    kept,
    bodyLimit: MOST_SHEET,
    makeReady: ({ body }) => withPicturesHeld(body.body),
    work: (db, { body, ready, context }) => store.addSheet(db, { ...body, body: ready }, context.personId),
  });

  writeRoute(app, 'POST /sheets/:id/revisions', {
    changes: ['sheets'],
    body: newRevision,
    answer: sheetRevision,
    kept,
    bodyLimit: MOST_SHEET,
    makeReady: ({ body }) => withPicturesHeld(body.body),
    work: (db, { id: sheet, ready, context }) => store.reviseSheet(db, sheet, ready, context.personId),
  });

  writeRoute(app, 'PUT /sheet-revisions/:id', {
    changes: ['sheets'],
    body: draftChange,
    answer: sheetRevision,
    kept,
    bodyLimit: MOST_SHEET,
    makeReady: ({ body }) => withPicturesHeld(body.body),
    work: (db, { id: draft, body, ready, context }) =>
      store.changeDraft(db, draft, { ...body, body: ready }, context.personId),
  });

  writeRoute(app, 'POST /sheet-revisions/:id/second-reading', {
    changes: ['sheets'],
    answer: sheetRevision,
    role: 'lead',
    status: 200,
    kept,
    work: (db, { id: revision, context }) => store.readSecond(db, revision, context.personId),
  });

  writeRoute(app, 'POST /sheet-revisions/:id/publication', {
    changes: ['sheets'],
    body: publication,
    answer: sheetRevision,
    role: 'lead',
    kept,
    work: (db, { id: draft, body, context }) =>
      store.publishRevision(db, draft, body.version, context.personId),
  });

  app.get(
    '/sheet-revisions/:id/file',
    { schema: { params, response: { 200: sheetFile } } },
    async (request, reply) => {
      const file = await read.writeFile(app.db, request.params.id);
      return reply
        .header('content-disposition', `attachment; filename="${fileName(file)}.json"`)
        .type('application/json')
        .serializer((said) => `${JSON.stringify(said, null, 2)}\n`)
        .send(file);
    },
  );

  app.get(
    '/sheet-revisions/:id/stop-card',
    {
      schema: {
        params,
        querystring: z.object({ school: positionSchool.exclude(['cam-by-hand']).optional() }),
      },
    },
    async (request, reply) => {
      const sheet = await read.findRevision(app.db, request.params.id);
      return reply
        .header('content-disposition', `inline; filename="${fileName(sheet)} stops.pdf"`)
        .type('application/pdf')
        .send(
          await app.papers.draw('stop-card', {
            sheet,
            school: request.query.school ?? firstSchool(sheet.pattern),
          }),
        );
    },
  );

  app.get(
    '/sheet-revisions/:id/piece-chart',
    { schema: { params, querystring: z.object({ role }) } },
    async (request, reply) => {
      const sheet = await read.findRevision(app.db, request.params.id);
      return reply
        .header('content-disposition', `inline; filename="${fileName(sheet)} pieces.pdf"`)
        .type('application/pdf')
        .send(
          await app.papers.draw('list', chartPaper(sheet, request.query.role, await shopSingleRule(app.db))),
        );
    },
  );
  done();
}

/** A name that every file system and every header takes. */
function fileName({ maker, name }: { readonly maker: string; readonly name: string }): string {
  return `${maker} ${name}`.replace(/[^A-Za-z0-9 ._-]+/g, '-');
}
