import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import { z } from 'zod';

/** The schema of an answer that says nothing but its status. */
export const nothing = z.null().describe('nothing');

/** Looks at every answer as it goes out, with the route it is one of. */
export type AnswerWatch = (request: FastifyRequest, reply: FastifyReply, payload: unknown) => void;

/**
 * Answers go out as they were made: what they are is held to their schemas where they are made, by their types, and by
 * whoever watches them, as the tests do with every one. Parsing each again as it goes would cost half of the time it takes.
 */
export function answers(app: FastifyInstance, watch: AnswerWatch | undefined): void {
  app.setSerializerCompiler(() => (data) => JSON.stringify(data));
  if (watch)
    app.addHook('onSend', (request, reply, payload, done) => {
      watch(request, reply, payload);
      done(null, payload);
    });
}
