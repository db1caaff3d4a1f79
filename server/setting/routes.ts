import { feel, newSetting, settingTakenBack } from '@zero-lash/contract/setting';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { personOf } from '../plugins/signIn.ts';
import { readFeel } from './feel.ts';
import { addSetting } from './store.ts';
import { takeBackSetting } from './takeBack.ts';
import { buildWriteRoute } from '../builds/buildWriteRoute.ts';

export function settingRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();

  buildWriteRoute(app, 'POST /builds/:id/settings', {
    body: newSetting,
    work: (db, { id: build, body, context }) => addSetting(db, build, body, context),
  });
  buildWriteRoute(app, 'POST /builds/:id/settings/:setting/taken-back', {
    params: z.object({ id, setting: id }),
    body: settingTakenBack,
    status: 200,
    work: (db, { id: build, params, body, context }) =>
      takeBackSetting(db, build, params.setting, body, context),
  });
  // nobody's but one's own
  app.get('/feel', { schema: { response: { 200: feel } } }, (request) =>
    readFeel(app.db, personOf(request).id),
  );
  done();
}
