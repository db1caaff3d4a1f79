import { z } from 'zod';

/** Whether a server can do its work, and which part is missing where it cannot. */
export const health = z.object({
  ok: z.boolean(),
  database: z.enum(['here', 'away']),
  awake: z.boolean(),
  /** what came of the last try to write: one is made every ten seconds, and every write that fails says so too */
  writes: z.enum(['fine', 'full', 'read-only', 'away', 'untried']),
  /** whole seconds that this server's clock goes ahead of the database's: its own is not gone by, but a supervisor may want to know */
  clockAhead: z.int(),
});
export type Health = z.infer<typeof health>;
