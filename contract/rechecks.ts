import { z } from 'zod';
import { day, id, moment, takenAt } from './values.ts';

export const dueStateValue = z.enum(['not-held', 'overdue', 'due', 'coming']);

export const plannedRecheck = z.object({
  id,
  sequence: z.int(),
  dueUsage: z.number().nullable(),
  dueDate: day.nullable(),
  state: dueStateValue,
});
export type PlannedRecheck = z.infer<typeof plannedRecheck>;

export const pastRecheck = z.object({
  id,
  buildId: id,
  sequence: z.int(),
  dueUsage: z.number().nullable(),
  dueDate: day.nullable(),
  status: z.enum(['planned', 'done', 'dropped']),
  outcome: z.enum(['held', 'undecided', 'out']).nullable(),
  doneAt: moment.nullable(),
  doneBy: z.string().nullable(),
  state: dueStateValue.nullable(),
});
export type PastRecheck = z.infer<typeof pastRecheck>;

export const recheckOpening = z.object({ takenAt });
