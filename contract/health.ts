import { z } from 'zod';

/** Whether a server can do its work, and which part is missing where it cannot. */
export const health = z.object({
  ok: z.boolean(),
  database: z.enum(['here', 'away']),
  awake: z.boolean(),
});
