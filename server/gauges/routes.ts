import { gaugeHeld, gaugeHold, gaugeLink, gaugeTold, simulatedGauge } from '@zero-lash/contract/instruments';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { Refusal } from '../plugins/errors.ts';
import { needs, personOf } from '../plugins/signIn.ts';
import { writeOnce } from '../plugins/writes.ts';
import type { GaugeListener } from './listener.ts';
import * as store from './store.ts';

export function gaugeRoutes(
  instance: FastifyInstance,
  { listener }: { readonly listener: GaugeListener },
  done: () => void,
): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const params = z.object({ id });
  const preHandler = needs('bench');

  app.get(
    '/gauges',
    {
      schema: {
        querystring: z.object({ device: id.optional() }),
        response: { 200: z.array(gaugeLink) },
      },
    },
    async ({ query: { device } }) => {
      const holds = await store.readHolds(app.db);
      return listener.links().map((link) => {
        const hold = holds.get(link.instrument);
        return hold ? { ...link, heldBy: hold.heldBy, heldHere: hold.device === device } : link;
      });
    },
  );

  app.post(
    '/gauges/:id/hold',
    { schema: { params, body: gaugeHold, response: { 200: gaugeHeld } }, preHandler },
    (request, reply) =>
      writeOnce(app.db, request, reply, 200, (transaction) =>
        store.takeGauge(transaction, request.params.id, request.body.device, personOf(request).id),
      ),
  );

  app.post(
    '/gauges/:id/release',
    { schema: { params, body: gaugeHold, response: { 200: gaugeHeld } }, preHandler },
    (request, reply) =>
      writeOnce(app.db, request, reply, 200, (transaction) =>
        store.letGaugeGo(transaction, request.params.id, request.body.device),
      ),
  );

  app.post(
    '/gauges/:id/simulation',
    {
      schema: {
        params,
        body: simulatedGauge.extend({ press: z.boolean().default(false) }),
        response: { 200: gaugeTold },
      },
      preHandler,
    },
    (request, reply) =>
      writeOnce(app.db, request, reply, 200, () => {
        const { press, ...nature } = request.body;
        if (!listener.simulate(request.params.id, nature, press)) throw new Refusal('gauge_unreached');
        return Promise.resolve({ told: true });
      }),
  );
  done();
}
