import { HEAD_OPERATIONS, type HeadOperation } from '@zero-lash/core/headwork';
import { z } from 'zod';
import { bounded } from './bounded.ts';
import { id, line } from './values.ts';
import { entryRow, newEntry } from './wear.ts';

const depth = bounded('cut').nullable();

/** One operation at one valve: planned, and done as it was measured. */
export const headWorkLine = z
  .object({
    step: id,
    valve: line(12),
    operation: z.enum(Object.keys(HEAD_OPERATIONS) as [HeadOperation, ...HeadOperation[]]),
    depth,
    /** across the seat or face itself, with the angle of that face from the head's */
    normalDepth: depth,
    seatAngle: z.number().min(0).lt(90).nullable(),
    done: depth,
    dropped: z.boolean(),
  })
  .superRefine(({ operation, depth: along, normalDepth, seatAngle }, context) => {
    const complain = (path: string, message: string) =>
      context.addIssue({ code: 'custom', path: [path], message });
    if ((along === null) === (normalDepth === null)) complain('depth', 'say how deep, one way');
    if (normalDepth !== null && seatAngle === null) complain('seatAngle', 'say the angle of the seat');
    if (normalDepth !== null && operation !== 'seat-cut' && operation !== 'face-cut')
      complain('normalDepth', 'only a seat or a face is cut at an angle');
  });
export type HeadWorkBody = z.infer<typeof headWorkLine>;

export const newHeadWork = newEntry(headWorkLine);
export type NewHeadWork = z.input<typeof newHeadWork>;
export const headWorkEntry = entryRow(headWorkLine);
export type HeadWorkEntry = z.infer<typeof headWorkEntry>;

/** How far forecasts of gaps on one pattern were off what was first measured; mm, above 0 they were too low. */
export const forecastsOfSheet = z.object({
  bias: z.object({ count: z.int(), mean: z.number(), sd: z.number().nullable() }).nullable(),
});
export type ForecastsOfSheet = z.infer<typeof forecastsOfSheet>;
