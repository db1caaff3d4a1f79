import { z } from 'zod';
import { id, moment } from './values.ts';

/** A reminder by mail: as it waits, or as it was sent. */
export const reminder = z.object({
  id,
  recheckId: id,
  engineId: id,
  engine: z.string(),
  stage: z.enum(['coming', 'overdue', 'not-held']),
  recipient: z.enum(['owner', 'lead']),
  /** null for viewers */
  address: z.string().nullable(),
  subject: z.string(),
  body: z.string(),
  madeAt: moment,
  notBefore: moment,
  sentAt: moment.nullable(),
  tries: z.int(),
  /** why it could not be sent the last time */
  complaint: z.string(),
});
export type Reminder = z.infer<typeof reminder>;

export const mailbox = z.object({
  /** where mail goes: into the simulated mailbox that ships with the program, or to a mail server */
  through: z.enum(['mailbox', 'smtp']),
  reminders: z.array(reminder),
  /** engines whose recheck comes and whose owner nobody can tell: no address */
  unreached: z.array(
    z.object({ engineId: id, engine: z.string(), owner: z.string(), ownerId: id.nullable() }),
  ),
});
export type Mailbox = z.infer<typeof mailbox>;
