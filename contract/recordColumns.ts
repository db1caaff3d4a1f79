import { z } from 'zod';
import { headWorkLine } from './headwork.ts';
import { reading } from './measuring.ts';
import { ledgerLine, patternPartsRow } from './parts.ts';
import { ranLine } from './ran.ts';
import { recheckForecast } from './rechecks.ts';
import { recheckPlan } from './recheckPlan.ts';
import { allowOver, ownAims, singleRule } from './setting.ts';
import { crankAngle } from './turning.ts';
import { moment, remark } from './values.ts';
import { wearLine } from './wear.ts';

/** Where a record says something else than what follows from its rows: where, what the file says, and what would follow. */
export const recordDifference = z.object({
  path: remark(120),
  file: remark(200),
  here: remark(200),
});
export type RecordDifference = z.infer<typeof recordDifference>;

/** Differences that are kept of a record; of one with more it is said how many there are. */
export const MOST_DIFFERENCES = 200;

/** The thickness of a blade as it is kept, in tenths of a micrometre. */
const bladeTenths = z.int().min(100).max(50_000);
const blades = z.array(bladeTenths).max(80);
/** Keys of lash points. */
const points = z.array(remark(20)).max(200);

/**
 * What each JSON column of a record holds, as the same is held to when it is written here: a file is a stranger. What a sheet
 * holds beside these is read as the sheet it makes together.
 */
export const RECORD_JSON: Readonly<Record<string, Readonly<Record<string, z.ZodType>>>> = {
  instruments: {
    ...{ thicknesses: blades, missing: blades, worn: blades },
    measured: z.array(z.tuple([bladeTenths, bladeTenths])).max(80),
  },
  engine_plans: { plan: recheckPlan },
  records_taken: { differences: z.array(recordDifference).max(MOST_DIFFERENCES + 1) },
  builds: { own_aims: ownAims.omit({ by: true }), allow_over: allowOver, single_rule: singleRule },
  rechecks: { forecast: recheckForecast, sample: points, points },
  rounds: { turn_done: z.array(crankAngle).max(80) },
  stage_ticks: { earlier: z.array(moment).max(1000) },
  readings: { reading },
  sign_offs: { accepted: points },
  pattern_parts: { lines: patternPartsRow.shape.lines },
};

/** What the lines of an entry are, by the room they were written in. */
export const RECORD_LINES: Readonly<Record<string, z.ZodType>> = {
  wear: z.array(wearLine),
  headwork: z.array(headWorkLine),
  ledger: z.array(ledgerLine),
  ran: z.array(ranLine),
};
