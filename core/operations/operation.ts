import { z } from 'zod';

/** An operation of the shell command: what it takes and what it does. */
export interface Operation {
  readonly schema: z.ZodType;
  readonly run: (input: never) => unknown;
}

/** Makes an operation of a schema and a function of the core. */
export const operation = <Schema extends z.ZodType>(
  schema: Schema,
  run: (input: z.output<Schema>) => unknown,
): Operation => ({ schema, run });

/** A length in mm, not below 0. */
export const length = z.number().nonnegative();

/** What is known of a gap, with both its ends. */
export const interval = z
  .object({ lo: length, hi: length })
  .refine(({ lo, hi }) => lo <= hi, { path: ['hi'], error: 'must not be below lo' });

/** The least and the greatest a gap may be. */
export const limits = z
  .object({ min: length, max: length })
  .refine(({ min, max }) => min <= max, { path: ['max'], error: 'must not be below min' });

/** What is known of a gap where its upper end may be open: its `floor`, absent, is true only where lo is above 0. */
export const knownGap = { lo: length, hi: length.nullable(), floor: z.boolean().optional() };

/** A bench's blades and how many may be held together. */
export const maxStack = z.int().min(1).max(6);
export const someBlades = z.array(z.number().positive()).min(1);
