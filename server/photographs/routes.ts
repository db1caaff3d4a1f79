import { droppedPhotograph, MOST_PHOTO_TEXT, newPhotograph } from '@zero-lash/contract/photographs';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { buildWriteRoute } from '../builds/buildWriteRoute.ts';
import { Refusal } from '../plugins/errors.ts';
import { pictureOf } from '../plugins/picture.ts';
import { readPicture } from './read.ts';
import { addPhotograph, dropPhotograph } from './store.ts';

/** What is said beside a picture. */
const BESIDE_BYTES = 10_000;

export function photographRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const params = z.object({ id });

  buildWriteRoute(app, 'POST /builds/:id/photographs', {
    body: newPhotograph,
    bodyLimit: MOST_PHOTO_TEXT + BESIDE_BYTES,
    // looked at before a transaction is begun: nobody waits while a picture is unpacked
    makeReady: ({ body }) => pictureOf(Buffer.from(body.file, 'base64')),
    work: (db, { id: build, body, ready: picture, context }) =>
      addPhotograph(db, build, body, picture, context),
  });

  buildWriteRoute(app, 'PUT /builds/:id/photographs/:photograph', {
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
