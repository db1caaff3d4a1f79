import { z } from 'zod';

/** What the server answers when it refuses or fails: RFC 9457, with a stable code. */
export const problem = z.object({
  type: z.string(),
  title: z.string(),
  status: z.int(),
  code: z.string(),
  detail: z.string(),
  fields: z.array(z.object({ path: z.string(), message: z.string() })).optional(),
  /** the lash points it is about */
  points: z.array(z.string()).optional(),
  /** the row as it stands now, where a stale edit was refused */
  current: z.unknown().optional(),
  /** the number the server's log has for a failure */
  reference: z.string().optional(),
});
export type ProblemBody = z.infer<typeof problem>;
