import { z } from 'zod';
import { bounded, whyPerhaps } from './bounded.ts';
import { crankAngle, turning } from './turning.ts';
import { id, line, moment, takenAt } from './values.ts';

const reach = bounded('gap');

/** A reading as the bench took it; lengths in mm. */
export const reading = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('tries'),
    tries: z
      .array(
        z
          .object({ thickness: reach, result: z.enum(['goes', 'drags', 'wont']) })
          // at nothing only "goes" can be said: no blade goes, and it rocks across the gap
          .refine(({ thickness, result }) => thickness > 0 || result === 'goes', {
            path: ['thickness'],
            error: 'a blade has a thickness',
          }),
      )
      .max(40),
    repeatability: reach.default(0.01),
  }),
  z.object({ kind: z.literal('bracket'), go: reach, noGo: reach }).refine(({ go, noGo }) => go < noGo, {
    path: ['noGo'],
    error: 'the blade that will not go is the thicker one',
  }),
  z.object({ kind: z.literal('drag'), blade: reach, repeatability: reach.default(0.01) }),
  z.object({ kind: z.literal('value'), value: reach, uncertainty: reach }),
  z.object({ kind: z.literal('go-only'), go: reach }),
  z.object({ kind: z.literal('no-go-only'), noGo: reach }),
]);

export const roundKind = z.enum(['as-found', 'as-set', 'proved', 'recheck']);
export type RoundKind = z.infer<typeof roundKind>;

export const verdict = z.enum([
  'tight',
  'loose',
  'in-spec',
  'undecided',
  'undecided-low',
  'undecided-high',
  'conflict',
]);

const takenReading = z.object({
  point: line(12),
  reading,
  asTyped: line(80),
  /** what was typed lies far outside the limits, was asked about, and kept */
  doubtKept: z.boolean().default(false),
  /** where the crank stood, as far as the bench knew */
  crankAngle: crankAngle.nullable().default(null),
  /** what it was measured with, where the bench said */
  instrumentId: id.nullable().default(null),
  takenAt,
  /** taken by a second person who did not see the first reading */
  blind: z.boolean().default(false),
  /** taken before the lock nut was tightened: by such a reading and the next the shift by locking is learned */
  beforeLock: z.boolean().default(false),
  /** the reading of this point that the device knew of; another one since then is kept beside it by name */
  over: id.nullable().optional(),
  /** of two that were written without seeing each other, the one that is taken: what it was read with, how and when goes with it */
  takes: id.nullable().optional(),
  reason: whyPerhaps(120).default(''),
  /** felt by a blade narrower than the hollow that is worn in there: what it says stands */
  narrowBlade: z.boolean().default(false),
});

/** A reading with no try in it takes back what stood there, so that nothing is known any more, and says why. */
export const newReading = takenReading
  .refine(({ reading, reason }) => reading.kind !== 'tries' || reading.tries.length > 0 || reason !== '', {
    path: ['reading', 'tries'],
    error: 'at least one blade was tried, or the reason says why none counts',
  })
  .refine(({ reading }) => reading.kind !== 'drag' || reading.blade > 0, {
    path: ['reading', 'blade'],
    error: 'a blade has a thickness',
  });
export type NewReading = z.input<typeof newReading>;

/** What was read in a round and is moved to another engine's: which points of it. */
export const movedReadings = z.object({ to: id, points: z.array(line(12)).min(1).max(200) });
export type MovedReadings = z.input<typeof movedReadings>;

/** A round of another engine in which the same is measured now. */
export const otherRound = z.object({ roundId: id, engine: z.string(), build: z.int() });
export type OtherRound = z.infer<typeof otherRound>;

/** The limits a reading is judged by, in mm, with what is taken over the greatest. */
export const judgedBy = z.object({ min: z.number(), max: z.number(), allowOver: z.number() });

export const readingRow = z.object({
  id,
  roundId: id,
  point: z.string(),
  reading,
  asTyped: z.string(),
  lo: z.number(),
  hi: z.number().nullable(),
  /** something bounds it from below; where nothing does, `lo` is only shown as 0 */
  floor: z.boolean(),
  verdict,
  onLimit: z.boolean(),
  /** what it was judged by; null where its sheet had no limits yet */
  limits: judgedBy.nullable(),
  narrowBlade: z.boolean(),
  doubtKept: z.boolean(),
  crankAngle: z.number().nullable(),
  /** taken with its follower off the base circle, and kept all the same */
  offBase: z.boolean(),
  instrument: z.string().nullable(),
  takenAt: moment,
  blind: z.boolean(),
  beforeLock: z.boolean(),
  /** what a blind second look is held against */
  firstLook: z
    .object({ by: z.string(), lo: z.number(), hi: z.number().nullable(), floor: z.boolean() })
    .nullable(),
  by: z.string(),
  at: moment,
  supersedes: id.nullable(),
  reason: z.string(),
  /** the reading of somebody else that it was written beside, without seeing it */
  crosses: id.nullable(),
  /** of one that stands: the other, until a person takes one of the two */
  crossed: z
    .object({
      ...{ id, by: z.string(), asTyped: z.string(), reading },
      ...{ lo: z.number(), hi: z.number().nullable(), floor: z.boolean(), takenAt: moment },
      ...{ beforeLock: z.boolean(), narrowBlade: z.boolean(), crankAngle: z.number().nullable() },
    })
    .nullable(),
  /** another reading stands in its place, or it was taken before the one that stands and came in late */
  superseded: z.boolean(),
  /** how many readings of this point in this round came before it */
  earlier: z.int(),
});
export type ReadingRow = z.infer<typeof readingRow>;

/** One reading a point had in a round, with what superseded it and why. */
export const pastReading = readingRow
  .pick({
    id: true,
    asTyped: true,
    lo: true,
    hi: true,
    floor: true,
    verdict: true,
    onLimit: true,
    limits: true,
    by: true,
    takenAt: true,
    reason: true,
    crankAngle: true,
    offBase: true,
    instrument: true,
    blind: true,
    beforeLock: true,
  })
  .extend({ supersededBy: z.string().nullable(), supersededWhy: z.string().nullable() });
export type PastReading = z.infer<typeof pastReading>;

const conditions = {
  engineTempC: bounded('temperature').nullable(),
  hoursSinceRun: z.number().min(0).max(100_000).nullable(),
  condition: z.enum(['cold', 'hot']).nullable().default(null),
};

export const newConditions = z.object({ ...conditions, takenAt });
export type NewConditions = z.input<typeof newConditions>;

/** What a round was said to be taken under. The newest holds; what was said before stays on the record. */
export const conditionsRow = z.object({ id, roundId: id, ...conditions, by: z.string(), at: moment });
export type ConditionsRow = z.infer<typeof conditionsRow>;

/** A round without what was taken in it. */
export const roundRow = z.object({
  id,
  kind: roundKind,
  number: z.int(),
  recheckId: id.nullable(),
  /** the round of an earlier build's recheck, which this build was opened to set again */
  carried: z.boolean(),
  openedAt: moment,
  openedBy: z.string(),
  closedAt: moment.nullable(),
});
export type RoundRow = z.infer<typeof roundRow>;

/** A round with the reading that stands at each point, what it was taken under, oldest first, and where the crank is. */
export const round = roundRow.extend({
  turning,
  conditions: z.array(conditionsRow),
  readings: z.array(readingRow),
});
export type Round = z.infer<typeof round>;
