import { buildWrite, type BuildWrite } from '@zero-lash/contract/builds';
import type { FastifyInstance } from 'fastify';
import type { z } from 'zod';
import { announce } from '../plugins/bus.ts';
import { writeRoute, type WriteAddress, type WriteRoute, type WriteTerms } from '../plugins/writeRoute.ts';
import { KEPT_WRITE, toldOf, topicsOf } from './write.ts';

/** A route by which something is written in a build. */
interface BuildWriteRoute<Body extends z.ZodType, Params extends z.ZodObject, Ready> extends WriteTerms<
  Body,
  Params,
  Ready
> {
  /** gives the write's own answer first; what it changed in other builds follows, and is only told */
  readonly work: (
    ...given: Parameters<WriteRoute<typeof buildWrite, Body, Params, Ready>['work']>
  ) => Promise<BuildWrite | readonly [BuildWrite, ...BuildWrite[]]>;
}

/**
 * Adds a route by which something is written in a build: in one transaction, once for each key, told to whoever looks at the build, and
 * answered with the rows that it brought.
 *
 * @param route its method and address, such as `POST /rounds/:id/readings`
 * @example buildWriteRoute(app, 'POST /builds/:id/notes', { body: noteRequest, work: (db, { id, body, context }) => addNote(db, id, body, context) })
 */
export function buildWriteRoute<
  Body extends z.ZodType = z.ZodUndefined,
  Params extends z.ZodObject = z.ZodObject<{ id: z.ZodUUID }>,
  Ready = undefined,
>(app: FastifyInstance, route: WriteAddress, { work, ...terms }: BuildWriteRoute<Body, Params, Ready>): void {
  writeRoute<typeof buildWrite, Body, Params, Ready>(app, route, {
    ...terms,
    answer: buildWrite,
    kept: KEPT_WRITE,
    changes: ({ changes }) => topicsOf(changes),
    work: async (db, write) => {
      const told = [await work(db, write)].flat() as BuildWrite[];
      await announce(db, ...told.map(toldOf));
      return told[0]!;
    },
  });
}
