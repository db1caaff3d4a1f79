import { mailbox } from '@zero-lash/contract/reminders';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { needs } from '../plugins/signIn.ts';
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
  const read = async () => ({ through: mailer.through, ...(await readMailbox(app.db)) });

  app.get('/reminders', { schema: { response: { 200: mailbox } } }, read);

  // each reminder is made and sent once by what it tells, so asking for it needs no key
  app.post(
    '/reminders/now',
    { schema: { response: { 200: mailbox } }, preHandler: needs('lead'), config: { keyless: true } },
    async () => {
      await makeReminders(app.db);
      await sendReminders(app.db, mailer);
      return read();
    },
  );
  done();
}
