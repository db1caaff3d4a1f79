import { z } from 'zod';
import { pattern } from './pattern.ts';
import { id, usageUnit } from './values.ts';

/** Patterns that anything was rechecked of, with how many engines: the most trouble first. */
export const fleetList = z.array(
  z.object({
    ...{ sheetId: id, name: z.string(), engines: z.int(), rechecks: z.int() },
    /** rechecks that found a point out */
    out: z.int(),
  }),
);
export type FleetList = z.infer<typeof fleetList>;

/** What all engines of one pattern say; a figure from under three engines is not there. */
export const fleetSays = z.object({
  sheetId: id,
  name: z.string(),
  usageUnit,
  /** the head that places stand on */
  pattern,
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
      /** the engines on which it gives most trouble */
      on: z.array(z.object({ engineId: id, engine: z.string(), perUnit: z.number(), out: z.int() })),
    }),
  ),
  /** engines by name, the most trouble first: what was found out on them, and the place that moves fastest */
  byEngine: z.array(
    z.object({
      ...{ engineId: id, engine: z.string(), place: z.string(), rechecks: z.int(), out: z.int() },
      fastest: z.object({ point: z.string(), perUnit: z.number() }).nullable(),
    }),
  ),
  checks: z.array(
    z.object({ sequence: z.int(), engines: z.int(), rechecks: z.int(), out: z.int(), since: z.number() }),
  ),
  calibration: z.object({ said: z.number(), count: z.int(), inside: z.int(), engines: z.int() }).nullable(),
  /** what was found against what was forecast, the newest; mm */
  findings: z.array(z.object({ said: z.number(), found: z.number(), inside: z.boolean() })),
  interval: z.object({
    says: z.enum(['shorter', 'longer', 'right', 'too-few']),
    ...{ engines: z.int(), rechecks: z.int(), out: z.int() },
  }),
});
export type FleetSays = z.infer<typeof fleetSays>;
