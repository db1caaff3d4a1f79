import { z } from 'zod';

/** Whether a server can do its work, and which part is missing where it cannot. */
export const health = z.object({
  ok: z.boolean(),
  database: z.enum(['here', 'away']),
  awake: z.boolean(),
  /** whole seconds that this server's clock goes ahead of the database's: its own is not gone by, but a supervisor may want to know */
  clockAhead: z.int(),
});
