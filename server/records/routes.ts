import { newRecord, recordTaken, type RecordTaken } from '@zero-lash/contract/records';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { needs, personOf, seesAddresses } from '../plugins/signIn.ts';
import { announceChange } from '../plugins/bus.ts';
import { writeKey, writeOnce } from '../plugins/writes.ts';
import { zipRecord } from './read.ts';
import { takeRecord, wouldTake } from './take.ts';

/** A record with all its photographs; as text it is a third longer. */
const MOST_RECORD = 120 * 1024 * 1024;

export function recordRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  // before a body is read, and unpacked, that is nobody's to send
  const sent = { onRequest: needs('lead'), bodyLimit: MOST_RECORD };

  app.get('/engines/:id/record', { schema: { params: z.object({ id }) } }, async (request, reply) =>
    reply
      .header('content-disposition', 'attachment; filename="engine.zip"')
      .type('application/zip')
      .send(await zipRecord(app.db, request.params.id, seesAddresses(request))),
  );

  // what taking one in would do, said before it is done
  app.post(
    '/records/preview',
    { schema: { body: newRecord, response: { 200: recordTaken } }, config: { keyless: true }, ...sent },
    async (request): Promise<RecordTaken> => {
      const zip = Buffer.from(request.body.file, 'base64');
      return wouldTake(app.db, { zip, record: await app.records.look(zip) }, personOf(request).id);
    },
  );

  app.post(
    '/records',
    { schema: { body: newRecord, response: { 201: recordTaken } }, ...sent },
    async (request, reply) => {
      const zip = Buffer.from(request.body.file, 'base64');
      // it is looked through before anything is begun
      const record = await app.records.look(zip);
      return writeOnce(app.db, request, reply, 201, async (transaction) => {
        const taken = await takeRecord(transaction, { zip, record }, personOf(request).id);
        await announceChange(transaction, ['engines', 'sheets', 'people', 'tools'], writeKey(request));
        return taken;
      });
    },
  );
  done();
}
