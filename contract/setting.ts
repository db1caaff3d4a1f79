import { saysSomething } from '@zero-lash/core/bounds';
import { z } from 'zod';
import { locking, role } from './pattern.ts';
import { bounded, limitMm, thicknessMm, why } from './bounded.ts';
import { id, line, moment, remark, takenAt } from './values.ts';

/** Why a point was left alone. */
export const leftCause = z.enum(['chosen', 'unreached', 'apart']);

export const newSetting = z
  .object({
    point: line(12),
    /** `bare`: what was in was taken out, and nothing is in until something is fitted */
    kind: z.enum(['turned', 'fitted', 'left', 'bare']),
    degrees: bounded('turned').nullable().default(null),
    /** what was in; null where nothing was, or nobody knows */
    installed: thicknessMm.nullable().default(null),
    fitted: thicknessMm.nullable().default(null),
    mark: remark(20).default(''),
    note: remark(200).default(''),
    /** where the piece that was fitted came from, and where the one taken out went */
    from: z.enum(['unsaid', 'drawer', 'engine', 'bought']).default('unsaid'),
    to: z.enum(['unsaid', 'drawer', 'engine', 'scrapped']).default('unsaid'),
    /** the point whose piece it was until then; null where it lay beside the engine */
    giver: line(12).nullable().default(null),
    /** why it was left alone: by choice, because it cannot be reached, or because it came apart before it was measured */
    cause: leftCause.default('chosen'),
    takenAt,
  })
  .superRefine((value, context) => {
    if (value.kind === 'turned' && value.degrees === 0)
      context.addIssue({ code: 'custom', path: ['degrees'], message: 'nothing was turned' });
    if (value.kind === 'fitted' && value.fitted === null)
      context.addIssue({ code: 'custom', path: ['fitted'], message: 'say what was fitted' });
    if (value.kind === 'bare' && value.fitted !== null)
      context.addIssue({ code: 'custom', path: ['fitted'], message: 'nothing is in where it is bare' });
    if (value.kind === 'left' && !saysSomething(value.note))
      context.addIssue({ code: 'custom', path: ['note'], message: 'say why it was left alone' });
    if (value.kind !== 'left' && value.cause !== 'chosen')
      context.addIssue({ code: 'custom', path: ['cause'], message: 'is of what is left alone' });
  });
export type NewSetting = z.input<typeof newSetting>;

export const setting = z.object({
  id,
  point: z.string(),
  kind: z.enum(['turned', 'fitted', 'left', 'bare']),
  degrees: z.number().nullable(),
  installed: z.number().nullable(),
  fitted: z.number().nullable(),
  mark: z.string(),
  note: z.string(),
  from: z.enum(['unsaid', 'drawer', 'engine', 'bought']),
  to: z.enum(['unsaid', 'drawer', 'engine', 'scrapped']),
  giver: z.string().nullable(),
  cause: leftCause,
  by: z.string(),
  /** when it was turned or fitted */
  at: moment,
  /** something else was done there since */
  superseded: z.boolean(),
});
export type Setting = z.infer<typeof setting>;

/** Why a setting that was written down wrongly is taken back: what stood before stands again. */
export const settingTakenBack = z.object({ reason: why(200), takenAt });
export type SettingTakenBack = z.input<typeof settingTakenBack>;

/** How much is proved again after a change at a point: what it disturbed, or more. */
export const provesAgain = z.enum(['disturbed', 'cylinder', 'head', 'every-point']);

export const aim = z.enum(['middle', 'exhaust-loose', 'loose-end', 'tight-end', 'own']);

/** A figure of the shop's own to aim at, in one role; mm. */
export const ownAim = z.object({ role, target: limitMm });
/** Figures of the shop's own, who stands for them, and why, where one lies outside the maker's band. */
export const ownAims = z.object({ figures: z.array(ownAim), reason: z.string(), by: z.string() });
export type OwnAims = z.infer<typeof ownAims>;

export const OVER_TOO_MUCH = 'more than 0.1 mm over the band is another limit, not an allowance';

/** How far over the greatest clearance a shop still takes the points of a role; mm. */
export const allowOver = z
  .array(
    z.object({
      role,
      over: z
        .number()
        .min(0, { error: 'nothing under the band is ever allowed' })
        .max(0.1, { error: OVER_TOO_MUCH }),
    }),
  )
  .max(8);

/** What is laid to either side of one figure of a source; mm. */
const roundFigure = z.object({
  below: z.number().min(0).max(0.1, { error: 'more than 0.1 mm under a figure is another limit' }),
  above: z.number().min(0).max(0.2, { error: 'more than 0.2 mm over a figure is another limit' }),
});

/** The band a shop lays round one figure of a source, up to a size and over it, mm; null where it goes by the usual one. */
export const singleRule = z
  .object({ size: limitMm, upTo: roundFigure, over: roundFigure })
  .refine(({ upTo, over }) => upTo.below + upTo.above > 0 && over.below + over.above > 0, {
    path: ['upTo'],
    error: 'a band has a width',
  })
  .nullable();
export type SingleRule = z.infer<typeof singleRule>;

/** By how much a person's gaps grow as the lock nut is tightened, on one pattern of adjuster; mm. */
export const lockFeel = z.object({
  means: z.enum(['screw', 'pivot-nut']),
  /** the pattern of adjuster: its thread, how it is locked, what a turn of it does */
  adjuster: z.string(),
  /** mm a turn */
  pitch: z.number(),
  locking,
  /** pairs of readings round the locking that it comes from */
  count: z.int(),
  mean: z.number().nullable(),
  sd: z.number().nullable(),
  /** what is set off for it: 0 until enough pairs say so */
  use: z.number(),
});
export type LockFeel = z.infer<typeof lockFeel>;

/** A person's own spread of feel; mm. */
export const feel = z.object({
  /** second looks that it comes from */
  count: z.int(),
  sd: z.number().nullable(),
  /** how much wider the first look reads than theirs */
  bias: z.number().nullable(),
  /** how far inside a band a plan of theirs keeps */
  guard: z.number(),
  /** what locking does to their gaps, for each pattern of adjuster there are pairs of */
  locks: z.array(lockFeel),
});
export type Feel = z.infer<typeof feel>;
