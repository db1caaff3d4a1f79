import { LEDGER_GROUPS, WAYS_ROUND, type LedgerGroup, type WayRound } from '@zero-lash/core/parts';
import { z } from 'zod';
import { id, line, moment, remark, takenAt } from './values.ts';
import { entryRow, newEntry } from './wear.ts';

const count = z.int().min(0).max(999, { error: 'nothing is there a thousand times' });

/** One thing of a count-out as it was last said of. */
export const ledgerLine = z.object({
  key: line(80),
  group: z.enum(Object.keys(LEDGER_GROUPS) as [LedgerGroup, ...LedgerGroup[]]),
  name: line(60),
  place: remark(60),
  way: z.enum(Object.keys(WAYS_ROUND) as [WayRound, ...WayRound[]]).default('unsaid'),
  expected: count,
  out: count.nullable(),
  in: count.nullable(),
  note: remark(200),
  dropped: z.boolean(),
});
export type LedgerLineBody = z.infer<typeof ledgerLine>;

const patternPart = ledgerLine.pick({
  ...{ key: true, group: true, name: true, place: true, expected: true, dropped: true },
});

/** What was found to be there on a pattern otherwise than listed: kept for every later build of it. */
export const patternPartsRow = z.object({
  id,
  sheetId: id,
  lines: z.array(patternPart),
  by: z.string(),
  at: moment,
});
export type PatternPartsRow = z.infer<typeof patternPartsRow>;

export const newPatternParts = z.object({ lines: z.array(patternPart).min(1).max(400), takenAt });
export type NewPatternParts = z.input<typeof newPatternParts>;

export const newLedger = newEntry(ledgerLine);
export type NewLedger = z.input<typeof newLedger>;
export const ledgerEntry = entryRow(ledgerLine);
export type LedgerEntry = z.infer<typeof ledgerEntry>;
