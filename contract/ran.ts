import { z } from 'zod';
import { id, line, moment, remark } from './values.ts';
import { entryRow, newEntry } from './wear.ts';

/** What is said of how an engine ran on its settings: a figure, or the owner's word. */
export const RAN_KINDS = {
  power: 'Power',
  starts: 'Starts',
  temperature: 'Temperature',
  consumption: 'Consumption',
  noise: 'Noise',
  word: 'The owner’s word',
} as const;
export type RanKind = keyof typeof RAN_KINDS;

export const ranLine = z
  .object({
    kind: z.enum(Object.keys(RAN_KINDS) as [RanKind, ...RanKind[]]),
    value: z.number().min(-1_000_000).max(1_000_000).nullable(),
    /** of the figure, as it was said: kW, at the first try, °C */
    unit: remark(20),
    text: remark(300),
  })
  .refine(({ value, text }) => value !== null || text !== '', {
    path: ['text'],
    error: 'a figure, or a word',
  });
export type RanLine = z.infer<typeof ranLine>;

export const newRan = newEntry(ranLine);
export type NewRan = z.input<typeof newRan>;
export const ranEntry = entryRow(ranLine);

/** How an engine ran, build by build. */
export const ranOfBuild = z.object({
  buildId: id,
  number: z.int(),
  signedAt: moment.nullable(),
  entries: z.array(z.object({ by: line(60), at: moment, lines: z.array(ranLine) })),
});
export type RanOfBuild = z.infer<typeof ranOfBuild>;
