import { z } from 'zod';
import { judgedBy, reading, verdict } from './measuring.ts';
import { pastRecheck, plannedRecheck } from './rechecks.ts';
import { recheckPlan, recheckStep } from './recheckPlan.ts';
import { recordDifference } from './recordColumns.ts';
import { jobKey, stageKey } from './stages.ts';
import { why, whyAtLength, whyPerhaps } from './bounded.ts';
import {
  day,
  id,
  line,
  moment,
  putAway,
  remark,
  takenAt,
  usage,
  usageUnit,
  version,
  written,
} from './values.ts';

const engineFields = z.object({
  name: line(60),
  serial: remark(60),
  owner: remark(80),
  duty: remark(120),
  /** where it stands */
  place: remark(60).default(''),
});

export const newEngine = engineFields.extend({ sheetId: id, usage });
export type NewEngine = z.input<typeof newEngine>;

/** What is left out stays as it is. */
export const engineChange = engineFields.extend({ place: remark(60).optional(), version });
export type EngineChange = z.input<typeof engineChange>;

/** An engine in a list. */
export const engineRow = engineFields.extend({
  id,
  sheetId: id,
  sheetName: z.string(),
  usageUnit,
  /** what the meter shows */
  usage: z.number(),
  /** what it has run in all, over every meter it had; rechecks are planned by it */
  running: z.number(),
  usageOn: day,
  /** how often it was run hot and went cold again, as far as it was logged */
  heatCycles: z.int(),
  ownerId: id.nullable(),
  stage: stageKey.nullable(),
  buildId: id.nullable(),
  recheck: plannedRecheck.nullable(),
  /** out of the way, with its whole record */
  putAway: putAway.nullable(),
  version,
});
export type EngineRow = z.infer<typeof engineRow>;

export const engineList = z.object({ engines: z.array(engineRow), total: z.int() });
export type EngineList = z.infer<typeof engineList>;

export const putAwayRequest = z.object({ version, why: whyAtLength(200) });
export type PutAwayRequest = z.infer<typeof putAwayRequest>;
export const bringBackRequest = z.object({ version });

/** What a list of engines may be sorted by; every column of it. */
export const engineSort = z.enum(['name', 'owner', 'sheetName', 'usage', 'stage', 'recheck']);
export type EngineSort = z.infer<typeof engineSort>;

export const engineSearch = z.object({
  search: written.max(60).default(''),
  /** those that were put away, and no others */
  away: z.stringbool().default(false),
  sort: engineSort.default('name'),
  order: z.enum(['asc', 'desc']).default('asc'),
  limit: z.coerce.number().int().min(1).max(500).default(100),
  /** how many to pass over: the pages before this one */
  offset: z.coerce.number().int().min(0).max(1_000_000).default(0),
});
export type EngineSearch = z.input<typeof engineSearch>;

/** One gap of one point at one moment, for the course of gaps over time. */
export const gapRow = z.object({
  point: z.string(),
  round: z.enum(['as-found', 'as-set', 'proved', 'recheck']),
  buildId: id,
  at: moment,
  usage: z.number().nullable(),
  lo: z.number(),
  hi: z.number().nullable(),
  /** something bounds it from below; where nothing does, `lo` is only shown as 0 */
  floor: z.boolean(),
  verdict,
  onLimit: z.boolean(),
  /** what it was judged by, and is shown with: not the newest revision's; null where its sheet had none yet */
  limits: judgedBy.nullable(),
});
export type GapRow = z.infer<typeof gapRow>;

export const engineBuild = z.object({
  id,
  number: z.int(),
  job: jobKey,
  stage: stageKey,
  complaint: z.string(),
  openedAt: moment,
  signedOffAt: moment.nullable(),
  signedOffBy: z.string().nullable(),
  closedAt: moment.nullable(),
  abandoned: putAway.nullable(),
  version,
  sheetName: z.string(),
  revision: z.int(),
});
export type EngineBuild = z.infer<typeof engineBuild>;

/** When an engine in service was last checked, at what its meter showed, and by whom; its gaps as far as anybody knows them. */
export const newLastCheck = z.object({
  on: day,
  usage,
  by: line(80),
  /** it was asked about, because no engine can have run that, and is right */
  sure: z.boolean().default(false),
  gaps: z
    .array(z.object({ point: line(12), reading, asTyped: line(80) }))
    .max(200)
    .default([]),
});
export type NewLastCheck = z.input<typeof newLastCheck>;

export const usageRow = z.object({
  id,
  usage: z.number(),
  running: z.number(),
  /** the first figure of a meter that was fitted then */
  newMeter: z.boolean(),
  reason: z.string(),
  readAt: moment,
  by: z.string(),
  /** a lead struck it out: it counts for nothing */
  struck: putAway.nullable(),
});

/** Why a figure is struck out of a log. */
export const usageStruck = z.object({ why: why(200) });

/** What became of an engine, and which of its rechecks moved with its log: what they were due at, and are now. */
export const usageStruckOut = z.object({
  engine: engineRow,
  moved: z.array(z.object({ sequence: z.int(), from: z.number(), to: z.number() })),
});
export type UsageStruckOut = z.infer<typeof usageStruckOut>;

/** What an engine is looked at by: its sheet's plan, or one of its own, with who gave it that and why. */
export const enginePlan = z.object({
  /** empty where its sheet gives none */
  steps: z.array(recheckStep),
  own: z.object({ why: z.string(), by: z.string(), at: moment }).nullable(),
});
export type EnginePlan = z.infer<typeof enginePlan>;

/** A plan of an engine's own; none goes back to its sheet's. */
export const newEnginePlan = z.object({ steps: recheckPlan.nullable(), why: whyAtLength(200), version });
export type NewEnginePlan = z.input<typeof newEnginePlan>;

export const engineView = engineRow.extend({
  /** null where no revision of its sheet is published yet */
  plan: enginePlan.nullable(),
  builds: z.array(engineBuild),
  gaps: z.array(gapRow),
  rechecks: z.array(pastRecheck),
  usages: z.array(usageRow),
  limits: z.array(z.object({ point: z.string(), min: z.number(), max: z.number() })),
  /** the records it came in by from other shops, the last first, with where they said something else than what followed */
  takenIn: z.array(
    z.object({ shop: z.string(), at: moment, by: z.string(), differences: z.array(recordDifference) }),
  ),
});
export type EngineView = z.infer<typeof engineView>;

/**
 * A running figure read off the engine. Below the last one it is either the first of a new meter, and the running goes
 * on from the old one's last figure, or it puts a slip right, which needs a reason.
 */
export const newUsage = z
  .object({
    usage,
    reason: whyPerhaps(200).default(''),
    /** more than can have been run since the last figure: it was asked about, and is right */
    sure: z.boolean().default(false),
    /** what the old meter showed last, and the new one when it was fitted */
    newMeter: z.object({ lastOfOld: usage, startedAt: usage }).nullable().default(null),
    /** how often it was run hot and went cold, in all; left out where nobody counts */
    heatCycles: z.int().min(0).max(1_000_000).nullable().default(null),
    /** the day it was read on, where that is not the day it was written down */
    day: day.nullable().default(null),
    takenAt,
  })
  .refine(({ usage: now, newMeter }) => newMeter === null || newMeter.startedAt <= now, {
    path: ['newMeter', 'startedAt'],
    error: 'the new meter began at or below what it shows now',
  });
export type NewUsage = z.input<typeof newUsage>;

/** The graded piece at a point of an engine, as it was last fitted, found or taken out; mm. */
export const pieceThere = z.object({
  point: z.string(),
  thickness: z.number().nullable(),
  /** the unit pieces of that point are stamped in */
  stamped: z.enum(['mm', 'thou']),
  mark: z.string(),
  how: z.enum(['fitted', 'found', 'bare']),
  by: z.string(),
  at: z.string(),
  buildId: id,
  build: z.int(),
});
export type PieceThere = z.infer<typeof pieceThere>;
