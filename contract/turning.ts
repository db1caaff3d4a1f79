import { z } from 'zod';
import { id, moment, takenAt } from './values.ts';

/** The schools of where to stop the crank. */
export const positionSchool = z.enum([
  'maker',
  'fewest',
  'each-firing',
  'companion',
  'open-pair',
  'lobe-away',
  'cam-by-hand',
]);

/** Degrees of the cycle, to the thousandth that is kept: what rounds to the end of the cycle is its beginning. */
export const crankAngle = z
  .number()
  .min(0)
  .lt(720, { error: 'the cycle ends at 720°' })
  .overwrite((angle) => (Math.round(angle * 1000) % 720_000) / 1000);

/** Where the crank is in a round, by which school it is turned, and which stops are done. */
export const turning = z.object({
  /** nothing where nobody has chosen one: the sheet's own table then, or the fewest stops */
  school: positionSchool.nullable(),
  at: crankAngle.nullable(),
  done: z.array(crankAngle).max(80),
});
export type Turning = z.infer<typeof turning>;

export const newTurning = turning.extend({ takenAt });
export type NewTurning = z.input<typeof newTurning>;

/** Where the crank was last said to stand in a round. */
export const turningRow = turning.extend({ roundId: id, saidAt: moment });
export type TurningRow = z.infer<typeof turningRow>;
