import { z } from 'zod';
import { pattern } from './pattern.ts';
import { why, whyAtLength } from './bounded.ts';
import { day, id, moment, takenAt, usageUnit, version } from './values.ts';

export const dueStateValue = z.enum(['not-held', 'overdue', 'due', 'coming', 'waiting']);

export const plannedRecheck = z.object({
  id,
  sequence: z.int(),
  dueUsage: z.number().nullable(),
  dueDate: day.nullable(),
  dueCycles: z.int().nullable(),
  benchDay: day.nullable(),
  expectedDay: day.nullable(),
  state: dueStateValue,
});
export type PlannedRecheck = z.infer<typeof plannedRecheck>;

/** What is forecast of one point when a recheck is due, from what it measured since it was set; mm. */
export const pointForecast = z.object({
  point: z.string(),
  /** a unit of usage, once it has bedded in */
  perUnit: z.number(),
  mean: z.number(),
  sd: z.number(),
  pTight: z.number(),
  pLoose: z.number(),
  /** running in all at which it may be out as likely as the threshold; null up to the horizon */
  outAt: z.number().nullable(),
  /** moves unlike the others of its engine, tighter or looser */
  unlike: z.enum(['tighter', 'looser']).nullable(),
  /** it rests on what is stated for any engine alone, and moves no date; not said of those made before that was asked */
  byDefault: z.boolean().optional(),
});
export type PointForecast = z.infer<typeof pointForecast>;

/** A forecast of every point for a recheck, with what it rests on. */
export const recheckForecast = z.object({
  /** how likely a point may be out before it is looked at */
  threshold: z.number(),
  /** what the expected drift is from: the shop's own rechecks of the pattern, or what is stated for any engine */
  priors: z.array(
    z.object({
      role: z.string(),
      from: z.enum(['own', 'stated']),
      count: z.int(),
      perUnit: z.number(),
      sd: z.number(),
    }),
  ),
  points: z.array(pointForecast),
});
export type RecheckForecast = z.infer<typeof recheckForecast>;

/** How the gaps of an engine's last signed build moved since they were set; running in all, mm. */
export const engineTrend = z.object({
  buildId: id,
  number: z.int(),
  pattern,
  usageUnit,
  setAt: z.number(),
  now: z.number(),
  next: z
    .object({
      recheckId: id,
      dueUsage: z.number().nullable(),
      planUsage: z.number().nullable(),
      dueDate: day.nullable(),
      byForecast: z.boolean(),
    })
    .nullable(),
  priors: z.array(
    z.object({
      role: z.string(),
      from: z.enum(['own', 'stated']),
      ...{ count: z.int(), perUnit: z.number(), sd: z.number(), betweenSd: z.number() },
    }),
  ),
  points: z.array(
    z.object({
      point: z.string(),
      role: z.string(),
      limits: z.object({ min: z.number(), max: z.number() }),
      /** usage since it was set */
      observations: z.array(z.object({ usage: z.number(), lo: z.number(), hi: z.number() })),
      unlike: z.enum(['tighter', 'looser']).nullable(),
    }),
  ),
});
export type EngineTrend = z.infer<typeof engineTrend>;

/** What a lead did about a planned recheck. */
export const recheckChange = z.object({
  kind: z.enum(['moved', 'on-hold', 'released', 'dropped', 'bench', 'replanned', 'let-stand']),
  day: day.nullable(),
  why: z.string(),
  by: z.string(),
  at: moment,
});

/** Why an engine is left as it is, against what came in late. */
export const lateLeft = z.object({ why: why(200), version });

/** What is known of a recheck that is planned, beside when it is due. */
const plannedFields = {
  /** what came in after signing says otherwise than what was signed: it is set again, or a lead leaves it as it is */
  late: z.boolean(),
  /** what begins on the day it is due before */
  season: z.string(),
  /** the first and the last day of that season, as far as they are known */
  seasonFrom: day.nullable(),
  seasonUntil: day.nullable(),
  /** the points of a short look, with those that are suspect; null where every point is measured */
  points: z.array(z.string()).nullable(),
  /** the forecast brought it forward */
  byForecast: z.boolean(),
  onHold: z.boolean(),
  benchDay: day.nullable(),
  expectedDay: day.nullable(),
  earliestDay: day.nullable(),
  latestDay: day.nullable(),
};

export const pastRecheck = z.object({
  id,
  buildId: id,
  sequence: z.int(),
  dueUsage: z.number().nullable(),
  dueDate: day.nullable(),
  dueCycles: z.int().nullable(),
  /** the running and the day the plan had, where the forecast or a lead has it otherwise */
  planUsage: z.number().nullable(),
  planDate: day.nullable(),
  ...plannedFields,
  forecast: recheckForecast.nullable(),
  changes: z.array(recheckChange),
  version,
  status: z.enum(['planned', 'done', 'dropped']),
  outcome: z.enum(['held', 'undecided', 'out']).nullable(),
  doneAt: moment.nullable(),
  doneBy: z.string().nullable(),
  state: dueStateValue.nullable(),
});
export type PastRecheck = z.infer<typeof pastRecheck>;

/** A lead moves a recheck, holds it back, lets it go again or drops it, and says why. */
export const recheckMove = z
  .object({
    kind: z.enum(['moved', 'on-hold', 'released', 'dropped']),
    day: day.nullable().default(null),
    why: whyAtLength(200),
    version,
  })
  .refine(({ kind, day: to }) => kind !== 'moved' || to !== null, {
    path: ['day'],
    error: 'a recheck is moved to a day',
  });
export type RecheckMove = z.input<typeof recheckMove>;

/** The day an engine is planned on the bench for its recheck; none takes it off the calendar again. */
export const benchDay = z.object({ day: day.nullable(), version });
export type BenchDay = z.infer<typeof benchDay>;

/** What a list of rechecks may be narrowed by. */
export const recheckSearch = z.object({
  state: z.enum(['open', 'not-held', 'overdue', 'due', 'coming', 'waiting']).default('open'),
  owner: id.optional(),
  place: z.string().max(60).optional(),
  sheet: id.optional(),
  /** days within which they are expected or planned on the bench: a calendar's window */
  from: day.optional(),
  to: day.optional(),
  limit: z.coerce.number().int().min(1).max(500).default(100),
  offset: z.coerce.number().int().min(0).max(1_000_000).default(0),
});
export type RecheckSearch = z.input<typeof recheckSearch>;

/** A planned recheck in the list or on the calendar. */
export const recheckRow = plannedRecheck.extend({
  buildId: id,
  engineId: id,
  engine: z.string(),
  owner: z.string(),
  place: z.string(),
  sheetName: z.string(),
  usageUnit,
  usage: z.number(),
  running: z.number(),
  heatCycles: z.int(),
  ...plannedFields,
  /** points that move unlike the others of their engine */
  unlike: z.array(z.object({ point: z.string(), way: z.enum(['tighter', 'looser']) })),
  version,
});
export type RecheckRow = z.infer<typeof recheckRow>;

export const recheckList = z.object({
  day,
  total: z.int(),
  counts: z.object({
    ...{ 'not-held': z.int(), overdue: z.int(), due: z.int(), coming: z.int(), waiting: z.int() },
  }),
  rechecks: z.array(recheckRow),
});
export type RecheckList = z.infer<typeof recheckList>;

const named = z.object({ id, name: z.string() });
export const recheckFilters = z.object({
  owners: z.array(named),
  places: z.array(z.string()),
  sheets: z.array(named),
});
export type RecheckFilters = z.infer<typeof recheckFilters>;

export const recheckOpening = z.object({ takenAt });
