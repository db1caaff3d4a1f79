import { buildWrite } from '@zero-lash/contract/builds';
import { droppedPhotograph, MOST_PHOTO_TEXT, newPhotograph } from '@zero-lash/contract/photographs';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { contextOf } from '../builds/writeContext.ts';
import { writeBuild } from '../builds/write.ts';
import { writeRoute } from '../builds/writeRoute.ts';
import { Refusal } from '../plugins/errors.ts';
import { needs } from '../plugins/signIn.ts';
import { pictureOf } from './picture.ts';
import { readPicture } from './read.ts';
import { addPhotograph, dropPhotograph } from './store.ts';

/** What is said beside a picture. */
const BESIDE_BYTES = 10_000;

export function photographRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const params = z.object({ id });
  const preHandler = needs('bench');

  app.post(
    '/builds/:id/photographs',
    {
      bodyLimit: MOST_PHOTO_TEXT + BESIDE_BYTES,
      schema: { params, body: newPhotograph, response: { 201: buildWrite } },
      preHandler,
    },
    async (request, reply) => {
      // looked at before a transaction is begun: nobody waits while a picture is unpacked
      const picture = await pictureOf(Buffer.from(request.body.file, 'base64'));
      return writeBuild(request, reply, 201, (transaction) =>
        addPhotograph(transaction, request.params.id, request.body, picture, contextOf(request)),
      );
    },
  );

  writeRoute(app, 'PUT /builds/:id/photographs/:photograph', {
    params: z.object({ id, photograph: id }),
    body: droppedPhotograph,
    work: (db, { id: build, params: { photograph }, body, context }) =>
      dropPhotograph(db, build, photograph, body, context),
  });

  app.get('/photographs/:id', { schema: { params } }, async (request, reply) => {
    const picture = await readPicture(app.db, request.params.id);
    if (!picture) throw new Refusal('not_found', { detail: 'There is no such photograph.' });
    return reply
      .header('cache-control', 'private, max-age=31536000, immutable')
      .type('image/jpeg')
      .send(picture);
  });
  done();
}
