import { z } from 'zod';
import { torque, TORQUE_UNITS } from '../assembly/index.ts';
import {
  baselineShim,
  bareFit,
  feelSpread,
  fitPiece,
  lockShift,
  screwTurn,
  seatOffset,
  settingBlades,
  shimChart,
  shimPlan,
} from '../setting/index.ts';
import {
  interval,
  knownGap,
  length,
  limits,
  maxStack,
  operation,
  someBlades,
  type Operation,
} from './operation.ts';

const sizes = z.array(z.number().positive()).min(1);

/** What is worked out to set a gap: pieces for a bare head, charts, and what a hand adds. */
export const SETTING_OPERATIONS: Readonly<Record<string, Operation>> = {
  'bare-fit': operation(
    z
      .object({ lo: length, hi: length, seatOffset: z.number(), target: length, sizes })
      .refine(({ lo, hi }) => lo <= hi, { path: ['hi'], error: 'must not be below lo' }),
    bareFit,
  ),
  'baseline-shim': operation(
    z.object({
      points: z
        .array(z.object({ key: z.string(), lo: z.number(), hi: z.number(), min: length, max: length }))
        .min(1),
      sizes,
      measurable: z.object({ from: length, to: length }),
    }),
    baselineShim,
  ),
  'seat-offset': operation(
    z.object({ bareGap: length, knownShim: z.number().positive(), clearanceWithShim: length }),
    seatOffset,
  ),
  'shim-chart': operation(
    z.object({
      spec: limits,
      target: length,
      sizes,
      installed: z.array(z.number().positive()).min(1),
      gain: z.number().positive().optional(),
      clearances: z
        .array(
          z
            .object({ from: length, to: length })
            .refine(({ from, to }) => from <= to, { path: ['to'], error: 'must not be below from' }),
        )
        .min(1),
    }),
    shimChart,
  ),
  'lock-shift': operation(
    z.object({ pairs: z.array(z.object({ before: interval, after: interval })) }),
    lockShift,
  ),
  'feel-spread': operation(
    z.object({ looks: z.array(z.object({ first: interval, second: interval })) }),
    feelSpread,
  ),
  'shim-plan': operation(
    z.object({
      points: z.array(
        z
          .object({
            key: z.string(),
            ...knownGap,
            installed: z.number().positive(),
            min: length,
            max: length,
            target: length,
            gain: z.number().positive().optional(),
          })
          .refine(({ min, max }) => min <= max, { path: ['max'], error: 'must not be below min' }),
      ),
      stock: z.array(z.object({ thickness: z.number().positive(), qty: z.int().nonnegative() })).default([]),
      orderable: z
        .array(z.object({ thickness: z.number().positive(), price: z.number().nonnegative().optional() }))
        .default([]),
      change: z.discriminatedUnion('rule', [
        z.object({ rule: z.literal('out-of-spec') }),
        z.object({ rule: z.literal('off-target'), by: length }),
        z.object({ rule: z.literal('all') }),
      ]),
      reuseRemoved: z.boolean().optional(),
      guard: length.optional(),
      keep: z.array(z.string()).optional(),
      without: z.array(z.object({ key: z.string(), thickness: z.number().positive() })).optional(),
    }),
    shimPlan,
  ),
  'fit-piece': operation(
    z
      .object({
        ...knownGap,
        installed: z.number().positive(),
        sizes,
        min: length,
        max: length,
        target: length,
        gain: z.number().positive().optional(),
        guard: length.optional(),
      })
      .refine(({ min, max }) => min <= max, { path: ['max'], error: 'must not be below min' }),
    fitPiece,
  ),
  'screw-turn': operation(
    z.object({
      measured: length,
      target: length,
      pitch: z.number().positive(),
      screwSide: z.enum(['valve', 'pushrod', 'pivot', 'finger-pivot']),
      rockerRatio: z.number().positive(),
      gapAt: z.enum(['valve', 'cam']).optional(),
      lockShift: z.number().optional(),
    }),
    screwTurn,
  ),
  'setting-blades': operation(
    z
      .object({
        blades: someBlades,
        maxStack,
        min: length,
        max: length,
        target: length,
        repeatability: length.optional(),
        lockShift: z.number().optional(),
      })
      .refine(({ min, max }) => min <= max, { path: ['max'], error: 'must not be below min' }),
    settingBlades,
  ),
  torque: operation(
    z.object({ value: z.number().nonnegative(), from: z.enum(TORQUE_UNITS), to: z.enum(TORQUE_UNITS) }),
    torque,
  ),
};
