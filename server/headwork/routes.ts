import { forecastsOfSheet, newHeadWork, type HeadWorkBody } from '@zero-lash/contract/headwork';
import { id } from '@zero-lash/contract/values';
import { OPERATION_WORDS, operationsFor } from '@zero-lash/core/headwork';
import { valvesOf, type Pattern } from '@zero-lash/core/sheets';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { addEntry } from '../entries/addEntry.ts';
import { buildWriteRoute } from '../builds/buildWriteRoute.ts';
import { readForecasts } from './forecasts.ts';

/** Says what of a piece of head work an engine has no place for; null where it fits. */
function complainOfWork(line: HeadWorkBody, pattern: Pattern) {
  if (!operationsFor(pattern).includes(line.operation))
    return {
      path: 'operation',
      message: `“${OPERATION_WORDS[line.operation]}” does not touch its gaps; look at the valve timing and at the room over the piston`,
    };
  return valvesOf(pattern).some(({ key }) => key === line.valve)
    ? null
    : { path: 'valve', message: `there is no valve ${line.valve}` };
}

export function headWorkRoutes(instance: FastifyInstance, _options: object, done: () => void): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const params = z.object({ id });

  buildWriteRoute(app, 'POST /builds/:id/headwork', {
    body: newHeadWork,
    work: (db, { id: build, body, context }) =>
      addEntry(db, build, 'headwork', body, context, complainOfWork),
  });

  app.get(
    '/sheets/:id/forecasts',
    { schema: { params, response: { 200: forecastsOfSheet } } },
    (request, reply) => app.cache.answer(reply, () => readForecasts(app.db, request.params.id)),
  );
  done();
}
