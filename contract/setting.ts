import { z } from 'zod';
import { id, line, moment, remark, takenAt, thicknessMm } from './values.ts';

export const newSetting = z
  .object({
    point: line(12),
    kind: z.enum(['turned', 'fitted', 'left']),
    degrees: z.number().min(-7200).max(7200).nullable().default(null),
    installed: thicknessMm.nullable().default(null),
    fitted: thicknessMm.nullable().default(null),
    mark: remark(20).default(''),
    note: remark(200).default(''),
    /** where the piece that was fitted came from, and where the one taken out went */
    from: z.enum(['unsaid', 'drawer', 'engine', 'bought']).default('unsaid'),
    to: z.enum(['unsaid', 'drawer', 'engine', 'scrapped']).default('unsaid'),
    /** the point whose piece it was until then; null where it lay beside the engine */
    giver: line(12).nullable().default(null),
    takenAt,
  })
  .superRefine((value, context) => {
    if (value.kind === 'fitted' && (value.installed === null || value.fitted === null))
      context.addIssue({
        code: 'custom',
        path: [value.installed === null ? 'installed' : 'fitted'],
        message: 'say what was in and what was fitted',
      });
    if (value.kind === 'left' && value.note === '')
      context.addIssue({ code: 'custom', path: ['note'], message: 'say why it was left alone' });
  });
export type NewSetting = z.input<typeof newSetting>;

export const setting = z.object({
  id,
  point: z.string(),
  kind: z.enum(['turned', 'fitted', 'left']),
  degrees: z.number().nullable(),
  installed: z.number().nullable(),
  fitted: z.number().nullable(),
  mark: z.string(),
  note: z.string(),
  from: z.enum(['unsaid', 'drawer', 'engine', 'bought']),
  to: z.enum(['unsaid', 'drawer', 'engine', 'scrapped']),
  giver: z.string().nullable(),
  by: z.string(),
  /** when it was turned or fitted */
  at: moment,
  /** something else was done there since */
  superseded: z.boolean(),
});
export type Setting = z.infer<typeof setting>;

/** How much is proved again after a change at a point: what it disturbed, or more. */
export const provesAgain = z.enum(['disturbed', 'cylinder', 'head', 'every-point']);

export const aim = z.enum(['middle', 'exhaust-loose', 'loose-end', 'tight-end']);

/** A person's own spread of feel; mm. */
export const feel = z.object({
  /** second looks that it comes from */
  count: z.int(),
  sd: z.number().nullable(),
  /** how much wider the first look reads than theirs */
  bias: z.number().nullable(),
  /** how far inside a band a plan of theirs keeps */
  guard: z.number(),
});
export type Feel = z.infer<typeof feel>;
