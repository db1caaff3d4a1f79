import { BOUNDS, impossible, MEASURED_IN } from '@zero-lash/core/bounds';
import {
  characteristicOf,
  CHARACTERISTICS,
  DAMAGE,
  PARTS,
  type Damage,
  type PartKind,
} from '@zero-lash/core/wear';
import { z } from 'zod';
import { holdsTogether, limitFields } from './sheets.ts';
import { whyPerhaps } from './bounded.ts';
import { id, line, moment, remark, takenAt } from './values.ts';

/** The most lines one hand writes at one moment: a whole column read from a file. */
export const MOST_LINES = 600;

const keys = <Key extends string>(table: Readonly<Record<Key, unknown>>) =>
  z.enum(Object.keys(table) as [Key, ...Key[]]);
/** a valve, a lobe, a cylinder; of a seal what it is called */
const place = line(60);
const part = keys<PartKind>(PARTS);
const measured = z
  .number()
  .min(0)
  .max(Math.max(...Object.values(MEASURED_IN).map((quantity) => BOUNDS[quantity].most)));

const figureLine = z
  .object({
    kind: z.literal('figure'),
    item: z.enum(CHARACTERISTICS.map(({ key }) => key) as [string, ...string[]]),
    place,
    field: line(20),
    values: z.array(measured).max(12),
    asTyped: remark(80),
    how: z.enum(['measured', 'gauge-goes', 'gauge-wont', 'sound', 'taken-back']),
    /** of the part that was found, or of the one fitted in its place */
    set: z.enum(['found', 'fitted']),
    /** it looked like a slip, and was kept */
    doubtKept: z.boolean(),
  })
  .superRefine(({ how, values, item, field }, context) => {
    const unit = characteristicOf(item)?.fields.find(({ key }) => key === field)?.unit;
    values.forEach((value, index) => {
      const cannotBe = unit ? impossible(MEASURED_IN[unit], value) : null;
      if (cannotBe) context.addIssue({ code: 'custom', path: ['values', index], message: cannotBe });
    });
    if ((how === 'measured') !== values.length > 0)
      context.addIssue({
        code: 'custom',
        path: ['values'],
        message: how === 'measured' ? 'a measurement has a figure' : 'what was not measured has no figure',
      });
  });

const markLine = z.object({
  kind: z.literal('mark'),
  part,
  place,
  damage: keys<Damage>(DAMAGE),
  note: remark(200),
  gone: z.boolean(),
});

const fateLine = z.object({
  kind: z.literal('fate'),
  part,
  place,
  fate: z.enum(['keep', 'watch', 'replace', 'undecided']),
  order: z.enum(['none', 'to-order', 'ordered', 'in-hand', 'fitted']),
  reason: whyPerhaps(200),
});

const limitLine = z
  .object({ kind: z.literal('limit'), ...limitFields.shape, source: line(120) })
  .superRefine(holdsTogether);

/** A line of a wear sheet: a figure, damage seen, what becomes of a part, or a limit that the sheet lacks. */
export const wearLine = z.union([figureLine, markLine, fateLine, limitLine]);
export type WearLineBody = z.infer<typeof wearLine>;

/** Lines that one hand writes at one moment. */
export const newEntry = <Line extends z.ZodType>(lines: Line) =>
  z.object({ lines: z.array(lines).min(1).max(MOST_LINES), takenAt });
/** The same, as they are kept. */
export const entryRow = <Line extends z.ZodType>(lines: Line) =>
  z.object({ id, by: z.string(), at: moment, lines: z.array(lines) });

export const newWear = newEntry(wearLine);
export type NewWear = z.input<typeof newWear>;
export const wearEntry = entryRow(wearLine);
export type WearEntry = z.infer<typeof wearEntry>;

/** What was measured of one engine in one build, and how far it had run by then. */
export const wearOfBuild = z.object({
  buildId: id,
  number: z.int(),
  running: z.number(),
  entries: z.array(wearEntry),
});
export type WearOfBuild = z.infer<typeof wearOfBuild>;
