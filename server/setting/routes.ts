import { buildWrite } from '@zero-lash/contract/builds';
import { feel, newSetting, settingTakenBack } from '@zero-lash/contract/setting';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { contextOf } from '../builds/writeContext.ts';
import { writeBuild } from '../builds/write.ts';
import { needs, personOf } from '../plugins/signIn.ts';
import { readFeel } from './feel.ts';
import { addSetting } from './store.ts';
import { takeBackSetting } from './takeBack.ts';

export function settingRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const params = z.object({ id });
  const preHandler = needs('bench');

  app.post(
    '/builds/:id/settings',
    { schema: { params, body: newSetting, response: { 201: buildWrite } }, preHandler },
    (request, reply) =>
      writeBuild(request, reply, 201, (transaction) =>
        addSetting(transaction, request.params.id, request.body, contextOf(request)),
      ),
  );
  app.post(
    '/builds/:id/settings/:setting/taken-back',
    {
      schema: {
        params: params.extend({ setting: id }),
        body: settingTakenBack,
        response: { 200: buildWrite },
      },
      preHandler,
    },
    (request, reply) =>
      writeBuild(request, reply, 200, (transaction) =>
        takeBackSetting(
          transaction,
          request.params.id,
          request.params.setting,
          request.body,
          contextOf(request),
        ),
      ),
  );
  // nobody's but one's own
  app.get('/feel', { schema: { response: { 200: feel } } }, (request) =>
    readFeel(app.db, personOf(request).id),
  );
  done();
}
