import { z } from 'zod';

/** A row's identity. */
export const id = z.uuid();

/** A moment, UTC. */
export const moment = z.iso.datetime({ offset: true });

/** A day of the calendar. */
export const day = z.iso.date();

/** A clearance limit in mm: above nothing, and no clearance is a centimetre wide. */
export const limitMm = z
  .number()
  .min(0, { error: 'a clearance is not negative' })
  .max(10, { error: 'no clearance is over 10 mm' });

/** The thickness of a graded piece in mm. */
export const thicknessMm = z
  .number()
  .min(0.1, { error: 'no such piece is under 0.1 mm' })
  .max(50, { error: 'no such piece is over 50 mm' });

/** A running figure, in the engine's own unit. */
export const usage = z
  .number()
  .min(0, { error: 'a running figure is not negative' })
  .max(9_999_999, { error: 'no engine has run that long' });

/** What an engine's running is counted in. */
export const usageUnit = z.enum(['hours', 'km', 'starts']);
export type UsageUnit = z.infer<typeof usageUnit>;

/** The version of a row that people edit; a stale one is refused. */
export const version = z.int().min(1);

/** Characters that are written, lines and tabs among them; the control characters besides have no place in a record. */
export const written = z
  .string()
  .regex(/^(?:\P{Cc}|[\t\n\r])*$/u, { error: 'has a character in it that cannot be written' });

/** A line a person writes. */
export const line = (most: number) => written.trim().min(1).max(most);

/** A text a person may leave empty. */
export const remark = (most: number) => written.trim().max(most);
