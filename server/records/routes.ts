import { newRecord, recordTaken } from '@zero-lash/contract/records';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { needs, personOf } from '../plugins/signIn.ts';
import { writeOnce } from '../plugins/writes.ts';
import { zipRecord } from './read.ts';
import { lookAtPictures, takeRecord, unpackRecord } from './take.ts';

/** A record with all its photographs; as text it is a third longer. */
const MOST_RECORD = 120 * 1024 * 1024;

export function recordRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();

  app.get('/engines/:id/record', { schema: { params: z.object({ id }) } }, async (request, reply) =>
    reply
      .header('content-disposition', 'attachment; filename="engine.zip"')
      .type('application/zip')
      .send(await zipRecord(app.db, request.params.id)),
  );

  app.post(
    '/records',
    {
      schema: { body: newRecord, response: { 201: recordTaken } },
      // before a body is read, and unpacked, that is nobody's to send
      onRequest: needs('lead'),
      bodyLimit: MOST_RECORD,
    },
    async (request, reply) => {
      // it is looked through before anything is begun
      const unpacked = unpackRecord(Buffer.from(request.body.file, 'base64'));
      await lookAtPictures(unpacked);
      return writeOnce(app.db, request, reply, 201, (transaction) =>
        takeRecord(transaction, unpacked, personOf(request).id),
      );
    },
  );
  done();
}
