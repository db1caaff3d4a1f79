import { mailbox } from '@zero-lash/contract/reminders';
import type { FastifyInstance, FastifyRequest } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { needs, seesAddresses } from '../plugins/signIn.ts';
import { makeReminders } from './make.ts';
import type { Mailer } from './mailer.ts';
import { readMailbox } from './read.ts';
import { sendReminders } from './send.ts';

export function reminderRoutes(
  instance: FastifyInstance,
  { mailer }: { readonly mailer: Mailer },
  done: () => void,
): void {
  const app = instance.withTypeProvider<ZodTypeProvider>();
  const read = async (request: FastifyRequest) => ({
    through: mailer.through,
    ...(await readMailbox(app.db, seesAddresses(request))),
  });

  app.get('/reminders', { schema: { response: { 200: mailbox } } }, read);

  // each reminder is made and sent once by what it tells, whatever key it comes with
  app.post(
    '/reminders/now',
    { schema: { response: { 200: mailbox } }, preHandler: needs('lead') },
    async (request) => {
      await makeReminders(app.db);
      await sendReminders(app.db, mailer);
      return read(request);
    },
  );
  done();
}
