import { z } from 'zod';
import { parseLength } from '../length/index.ts';
import { assess, bladeStack, narrowingBlade, nextBlade } from '../measuring/index.ts';
import { parseLimits } from '../sheets/index.ts';
import { knownGap, length, limits, maxStack, operation, someBlades, type Operation } from './operation.ts';

const thickness = z.number().positive();
const reading = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('tries'),
    tries: z.array(
      z
        .object({ thickness: length, result: z.enum(['goes', 'drags', 'wont']) })
        // no blade goes, but it moves by hand
        .refine((each) => each.thickness > 0 || each.result === 'goes', {
          path: ['thickness'],
          error: 'must be above 0 where it does not go',
        }),
    ),
    repeatability: length.default(0.01),
  }),
  z.object({ kind: z.literal('bracket'), go: length, noGo: length }),
  z.object({ kind: z.literal('drag'), blade: thickness, repeatability: length.default(0.01) }),
  z.object({ kind: z.literal('value'), value: length, uncertainty: length }),
  z.object({ kind: z.literal('go-only'), go: length }),
  z.object({ kind: z.literal('no-go-only'), noGo: length }),
]);
const defaultUnit = z.enum(['mm', 'um', 'thou', 'in']);

/** What is measured, and how what people type and manuals print is understood. */
export const MEASURING_OPERATIONS: Readonly<Record<string, Operation>> = {
  assess: operation(
    z.object({
      spec: limits,
      reading,
      limitTolerance: length.optional(),
      allowOver: length.optional(),
      hollow: z.boolean().optional(),
    }),
    assess,
  ),
  'blade-stack': operation(z.object({ blades: someBlades, target: length, maxStack }), bladeStack),
  'narrowing-blade': operation(
    z.object({ blades: someBlades, maxStack, ...knownGap, spec: limits, enough: length }),
    (input) => ({ test: narrowingBlade(input) }),
  ),
  'next-blade': operation(
    z.object({ blades: z.array(thickness), maxStack, ...knownGap, spec: limits }),
    nextBlade,
  ),
  'parse-length': operation(
    z.object({ text: z.string(), defaultUnit, spec: limits.optional() }),
    ({ text, defaultUnit: unit, spec }) => parseLength(text, unit, spec),
  ),
  'parse-limits': operation(
    z.object({
      text: z.string(),
      unit: defaultUnit,
      single: z.object({ below: length, above: length }).optional(),
    }),
    ({ text, unit, single }) => parseLimits(text, unit, single),
  ),
};
