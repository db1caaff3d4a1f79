import { z } from 'zod';
import { dueStateValue } from './rechecks.ts';
import { jobKey, stageKey } from './stages.ts';
import { day, id, moment, usageUnit } from './values.ts';

/** What is on the bench and what is due; lists are cut at `limit`, counts are whole. */
export const today = z.object({
  day,
  stages: z.array(
    z.object({
      stage: stageKey,
      count: z.int(),
      builds: z.array(
        z.object({
          id,
          engineId: id,
          engine: z.string(),
          owner: z.string(),
          job: jobKey,
          complaint: z.string(),
          since: moment,
          /** of the round that is open, how many points are measured */
          measured: z.object({ done: z.int(), of: z.int() }).nullable(),
        }),
      ),
    }),
  ),
  /** revisions of spec sheets that a lead who did not write at them reads: drafts, and what was published with nobody else there */
  drafts: z.array(
    z.object({
      ...{ sheetId: id, name: z.string(), number: z.int(), published: z.boolean() },
      writers: z.array(z.string()),
    }),
  ),
  rechecks: z.object({
    counts: z.object({
      'not-held': z.int(),
      overdue: z.int(),
      due: z.int(),
      coming: z.int(),
      waiting: z.int(),
    }),
    list: z.array(
      z.object({
        id,
        buildId: id,
        engineId: id,
        engine: z.string(),
        owner: z.string(),
        usageUnit,
        /** what the engine has run in all, as `dueUsage` counts */
        running: z.number(),
        heatCycles: z.int(),
        dueUsage: z.number().nullable(),
        dueDate: day.nullable(),
        dueCycles: z.int().nullable(),
        benchDay: day.nullable(),
        expectedDay: day.nullable(),
        state: dueStateValue,
        sequence: z.int(),
        /** what came in after signing says otherwise than what was signed */
        late: z.boolean(),
      }),
    ),
  }),
});
export type Today = z.infer<typeof today>;
