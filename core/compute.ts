import { z } from 'zod';
import { MEASURING_OPERATIONS } from './operations/measuring.ts';
import { length, operation, type Operation } from './operations/operation.ts';
import { RECHECK_OPERATIONS } from './operations/rechecks.ts';
import { SETTING_OPERATIONS } from './operations/setting.ts';
import { WEAR_OPERATIONS } from './operations/wear.ts';
import { crankStops, openPairs, stopTable } from './turning/index.ts';

const engine = {
  cylinders: z.array(z.object({ id: z.string(), firesAt: z.number() })).min(1),
  points: z.array(
    z
      .object({
        key: z.string(),
        cylinder: z.string(),
        role: z.string(),
        opens: z.number().optional(),
        closes: z.number().optional(),
      })
      .refine((point) => point.closes === undefined || point.closes > (point.opens ?? 0), {
        path: ['closes'],
        error: 'must come after opens',
      }),
  ),
  events: z.object({
    ivoBtdc: z.number(),
    ivcAbdc: z.number(),
    evoBbdc: z.number(),
    evcAtdc: z.number(),
  }),
};

/** Every operation of the core that the shell command reaches, by name. Lengths in mm, angles in crank degrees. */
export const OPERATIONS: Readonly<Record<string, Operation>> = {
  'crank-stops': operation(
    z.object({
      ...engine,
      marks: z.union([z.literal('any'), z.array(z.number())], {
        error: 'must be "any" or a list of angles',
      }),
      margin: length,
    }),
    crankStops,
  ),
  'open-pairs': operation(z.object({ ...engine, within: length }), openPairs),
  'stop-table': operation(z.object({ ...engine, angles: z.array(z.number()), margin: length }), stopTable),
  ...MEASURING_OPERATIONS,
  ...SETTING_OPERATIONS,
  ...WEAR_OPERATIONS,
  ...RECHECK_OPERATIONS,
};

/** An input an operation cannot take; the message names the field. */
export class ComputeInputError extends Error {}

/**
 * Runs one operation on one input, as the shell command does.
 *
 * @throws ComputeInputError when the operation is unknown or the input does not fit it, in one line that names the field
 * @example compute('screw-turn', { measured: 0.18, target: 0.14, pitch: 1, screwSide: 'valve', rockerRatio: 1.7 })
 */
export function compute(name: string, input: unknown): unknown {
  const found = Object.hasOwn(OPERATIONS, name) ? OPERATIONS[name] : undefined;
  if (!found)
    throw new ComputeInputError(
      `unknown operation “${name}”; there are: ${Object.keys(OPERATIONS).join(', ')}`,
    );
  const parsed = found.schema.safeParse(input);
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!;
    throw new ComputeInputError(
      `${issue.path.length > 0 ? issue.path.join('.') : 'input'}: ${issue.message}`,
    );
  }
  try {
    return found.run(parsed.data as never);
  } catch (error) {
    if (error instanceof RangeError) throw new ComputeInputError(error.message);
    throw error;
  }
}
