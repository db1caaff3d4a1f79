import { z } from 'zod';
import { lashBudget, HEAD_OPERATIONS, type HeadOperation } from '../headwork/index.ts';
import { WEAR_FEATURES, wearRate } from '../wear/index.ts';
import { tightenOrder } from '../assembly/index.ts';
import { length, operation, type Operation } from './operation.ts';

const figures = z.array(z.number()).min(1);
const wearLimits = z
  .object({ nominal: z.number(), limit: z.number() })
  .refine(({ nominal, limit }) => nominal !== limit, {
    path: ['limit'],
    error: 'must differ from nominal',
  });
const cylinders = <Shape extends z.ZodRawShape>(shape: Shape) =>
  z
    .array(z.object({ cylinder: z.string(), ...shape }))
    .min(1)
    .refine((all) => new Set(all.map((one) => (one as { cylinder: string }).cylinder)).size === all.length, {
      error: 'one cylinder is there twice',
    });

const feature = z.discriminatedUnion('feature', [
  z.object({
    feature: z.literal('lobe'),
    stations: z.array(z.object({ height: z.number(), base: z.number() })).min(1),
    specLift: z.number(),
    minLift: z.number(),
  }),
  z.object({
    feature: z.literal('journal'),
    planes: z.array(figures).min(1),
    bore: figures,
    clearance: wearLimits,
    ovalityLimit: length.optional(),
    taperLimit: length.optional(),
  }),
  z.object({ feature: z.literal('stem-guide'), stem: figures, guide: figures, clearance: wearLimits }),
  z.object({
    feature: z.literal('spring'),
    freeLength: z.number(),
    freeLengthSpec: wearLimits,
    loads: z.array(z.object({ height: z.number(), force: z.number() })).length(2),
    installedHeight: z.number(),
    lift: z.number(),
    coilBindHeight: z.number(),
    seatForceMin: z.number().optional(),
    bindMarginMin: z.number().optional(),
  }),
  z.object({
    feature: z.literal('chain'),
    measured: z.union([z.number(), figures]),
    nominal: z.number(),
    limitPercent: z.number(),
  }),
  z.object({ feature: z.literal('value'), measured: figures, nominal: z.number(), limit: z.number() }),
  z.object({ feature: z.literal('fit'), outer: figures, inner: figures, clearance: wearLimits }),
  z.object({ feature: z.literal('band'), measured: figures, min: z.number(), max: z.number() }),
  z.object({
    feature: z.literal('guide-wobble'),
    wobble: length,
    height: length,
    guideLength: z.number(),
    clearance: wearLimits,
  }),
  z.object({
    feature: z.literal('compression'),
    cylinders: cylinders({ pressure: length }),
    least: length,
    spreadLimit: length,
  }),
  z.object({
    feature: z.literal('leak-down'),
    cylinders: cylinders({ percent: length }),
    watch: length,
    limit: length,
  }),
]);

/** What is worked out while the head is open: wear, its rate, what the head work does, and in which order bolts go. */
export const WEAR_OPERATIONS: Readonly<Record<string, Operation>> = {
  wear: operation(feature, ({ feature: name, ...input }) => WEAR_FEATURES[name](input as never)),
  'wear-rate': operation(
    z.object({
      observations: z.array(z.object({ usage: z.number(), measured: z.number() })),
      nominal: z.number(),
      limit: z.number(),
    }),
    wearRate,
  ),
  'lash-budget': operation(
    z.object({
      lo: z.number(),
      hi: z.number(),
      steps: z.array(
        z.object({
          kind: z.enum(Object.keys(HEAD_OPERATIONS) as [HeadOperation, ...HeadOperation[]]),
          depth: length.optional(),
          normalDepth: length.optional(),
          seatAngle: z.number().optional(),
        }),
      ),
      rockerRatio: z.number().positive().optional(),
      gapAt: z.enum(['valve', 'cam']).optional(),
      pivot: z.enum(['between', 'end']).optional(),
      camIn: z.enum(['block', 'head']).optional(),
      side: z.enum(['opening', 'closing']).optional(),
      installed: z.number().positive().optional(),
      target: length.optional(),
      sizes: z
        .object({ min: length, max: length })
        .refine(({ min, max }) => min <= max, { path: ['max'], error: 'must not be below min' })
        .optional(),
    }),
    lashBudget,
  ),
  'tighten-order': operation(
    z.object({
      bolts: z.array(z.object({ id: z.string(), x: z.number(), y: z.number() })).min(1),
      ringTolerance: z.number().nonnegative().optional(),
    }),
    tightenOrder,
  ),
};
