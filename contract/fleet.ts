import { z } from 'zod';
import { id, usageUnit } from './values.ts';

/** Patterns that anything was rechecked of, with how many engines. */
export const fleetList = z.array(
  z.object({ sheetId: id, name: z.string(), engines: z.int(), rechecks: z.int() }),
);
export type FleetList = z.infer<typeof fleetList>;

/** What all engines of one pattern say; a figure from under three engines is not there. */
export const fleetSays = z.object({
  sheetId: id,
  name: z.string(),
  usageUnit,
  engines: z.int(),
  rechecks: z.int(),
  /** drift by role, mm a unit of usage */
  roles: z.array(
    z.object({
      role: z.string(),
      engines: z.int(),
      points: z.int(),
      perUnit: z.number(),
      betweenSd: z.number(),
    }),
  ),
  positions: z.array(
    z.object({
      point: z.string(),
      role: z.string(),
      engines: z.int(),
      perUnit: z.number(),
      /** of its checks, how many found it out */
      checks: z.int(),
      out: z.int(),
      /** engines on which this place moved most towards its limit */
      goesFirst: z.int(),
    }),
  ),
  checks: z.array(
    z.object({ sequence: z.int(), engines: z.int(), rechecks: z.int(), out: z.int(), since: z.number() }),
  ),
  calibration: z.object({ said: z.number(), count: z.int(), inside: z.int(), engines: z.int() }).nullable(),
  interval: z.object({
    says: z.enum(['shorter', 'longer', 'right', 'too-few']),
    ...{ engines: z.int(), rechecks: z.int(), out: z.int() },
  }),
});
export type FleetSays = z.infer<typeof fleetSays>;
