import { gaugeHeld, gaugeHold, gaugeLink, gaugeTold, simulatedGauge } from '@zero-lash/contract/instruments';
import { id } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { Refusal } from '../plugins/errors.ts';
import { writeRoute } from '../plugins/writeRoute.ts';
import type { GaugeListener } from './listener.ts';
import * as store from './store.ts';

export function gaugeRoutes(
  instance: FastifyInstance,
  { listener }: { readonly listener: GaugeListener },
  done: () => void,
): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();

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

  writeRoute(app, 'POST /gauges/:id/hold', {
    changes: ['gauges'],
    body: gaugeHold,
    answer: gaugeHeld,
    status: 200,
    work: (db, { id: gauge, body, context }) => store.takeGauge(db, gauge, body.device, context.personId),
  });

  writeRoute(app, 'POST /gauges/:id/release', {
    changes: ['gauges'],
    body: gaugeHold,
    answer: gaugeHeld,
    status: 200,
    work: (db, { id: gauge, body }) => store.letGaugeGo(db, gauge, body.device),
  });

  writeRoute(app, 'POST /gauges/:id/simulation', {
    changes: [],
    body: simulatedGauge.extend({ press: z.boolean().default(false) }),
    answer: gaugeTold,
    status: 200,
    work: (_db, { id: gauge, body: { press, ...nature } }) => {
      if (!listener.simulate(gauge, nature, press)) throw new Refusal('gauge_unreached');
      return Promise.resolve({ told: true });
    },
  });
  done();
}
