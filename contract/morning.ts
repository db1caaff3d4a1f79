import { z } from 'zod';
import { moment } from './values.ts';

/** What a build stands still for. */
export const waitsFor = z.enum(['lead', 'parts', 'cold', 'second-look', 'device']);
export type WaitsFor = z.infer<typeof waitsFor>;

/** What a device was asked about was thrown away on it. */
export const timeQuestionLeft = z.object({ left: z.boolean() });

/** What waits, and what changed since this person last looked. */
export const morning = z.object({
  waits: z.array(z.object({ for: waitsFor, path: z.string(), engine: z.string(), text: z.string() })),
  /** lines of the meter feed that want an answer */
  questions: z.int(),
  /** reminders by mail that were tried and could not be sent yet */
  unsent: z.int(),
  /** null where this person never said so */
  since: moment.nullable(),
  changed: z.array(
    z.object({ at: moment, by: z.string(), engine: z.string(), text: z.string(), path: z.string() }),
  ),
});
export type Morning = z.infer<typeof morning>;
