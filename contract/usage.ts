import { z } from 'zod';
import { whyPerhaps } from './bounded.ts';
import { day, id, moment, usage, usageUnit } from './values.ts';

const cycles = z.int().min(0).max(1_000_000);

/** One figure off a meter, of a list of them: what it shows, on which day it was read, and heat cycles in all where they are counted. */
export const usageLine = z
  .object({
    engineId: id,
    usage,
    /** today where it is left out */
    day: day.nullable().default(null),
    heatCycles: cycles.nullable().default(null),
    reason: whyPerhaps(200).default(''),
    /** more than can have been run since the last figure: it was asked about, and is right */
    sure: z.boolean().default(false),
    newMeter: z.object({ lastOfOld: usage, startedAt: usage }).nullable().default(null),
  })
  .refine(({ usage: now, newMeter }) => newMeter === null || newMeter.startedAt <= now, {
    path: ['newMeter', 'startedAt'],
    error: 'the new meter began at or below what it shows now',
  });
export type UsageLine = z.input<typeof usageLine>;

/** A round of meters: each line is taken by itself, so that one bad line keeps none of the others back. */
export const usageRound = z.object({
  source: z.enum(['hand', 'csv']).default('hand'),
  lines: z.array(usageLine).min(1).max(500),
});
export type UsageRound = z.input<typeof usageRound>;

/** What became of each line, in the order they came. */
export const usageRoundTaken = z.object({
  lines: z.array(
    z.object({
      engineId: id,
      state: z.enum(['taken', 'already', 'refused']),
      code: z.string().nullable(),
      detail: z.string(),
    }),
  ),
});
export type UsageRoundTaken = z.infer<typeof usageRoundTaken>;

/** A line of a meter's feed that cannot be as it stands: it waits until a person says what it is. */
export const meterQuestion = z.object({
  id,
  serial: z.string(),
  at: moment,
  /** null where the line is none that can be read */
  usage: z.number().nullable(),
  /** a line that is none, as it came */
  line: z.string(),
  heatCycles: z.int().nullable(),
  engineId: id.nullable(),
  engine: z.string().nullable(),
  usageUnit: usageUnit.nullable(),
  /** what the engine's meter showed last */
  last: z.number().nullable(),
  why: z.string(),
});
export type MeterQuestion = z.infer<typeof meterQuestion>;
export const meterQuestions = z.object({
  /** whether a feed is set up at all */
  feed: z.boolean(),
  questions: z.array(meterQuestion),
});

/** What a line of the feed is: the first of a new meter, a slip put right, or nothing to go by. */
export const meterAnswer = z.object({
  is: z.enum(['new-meter', 'right', 'left']),
  lastOfOld: usage.nullable().default(null),
  reason: whyPerhaps(200).default(''),
});
export type MeterAnswer = z.input<typeof meterAnswer>;

/** What a look at the feed brought. */
export const feedTaken = z.object({ taken: z.int(), asked: z.int(), seen: z.int() });
export type FeedTaken = z.infer<typeof feedTaken>;

/** One line of a meter feed, as it is sent: a JSON object a line. */
export const feedLine = z.object({
  serial: z.string().trim().min(1).max(60),
  at: moment,
  usage,
  heatCycles: cycles.nullable().default(null),
  /** what it counts, where the feed says so */
  unit: usageUnit.nullable().default(null),
});
