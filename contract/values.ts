import { USAGE_UNITS } from '@zero-lash/core/rechecks';
import { z } from 'zod';

/** A row's identity. */
export const id = z.uuid();

/** No figure of this job was taken before this year, and none is planned after that one. */
const FIRST_YEAR = 1950;
const LAST_YEAR = 2199;
const inYears = (text: string) => {
  const year = /^\d{4}(?=-)/.exec(text);
  // what is no date at all is told so by the format
  return year === null || (Number(year[0]) >= FIRST_YEAR && Number(year[0]) <= LAST_YEAR);
};
const YEARS = { error: `the year is from ${FIRST_YEAR} to ${LAST_YEAR}` };

/** A moment, UTC. */
export const moment = z.iso.datetime({ offset: true }).refine(inYears, YEARS);

/** A day of the calendar. */
export const day = z.iso.date().refine(inYears, YEARS);

/** Whether a name is one of a time zone, such as Europe/Vienna, that this machine knows. */
export function isZone(name: string): boolean {
  try {
    return new Intl.DateTimeFormat('en', { timeZone: name }).resolvedOptions().timeZone !== '';
  } catch {
    return false;
  }
}

/** A time zone by its name. */
export const zone = z.string().max(60).refine(isZone, { error: 'there is no such time zone' });

/** A running figure, in the engine's own unit, to a tenth. */
export const usage = z
  .number()
  .min(0, { error: 'a running figure is not negative' })
  .max(9_999_999, { error: 'no engine has run that long' })
  // as it is kept: what was read off is never refused for what it was rounded to
  .overwrite((figure) => Math.round(figure * 10) / 10);

/** What an engine's running is counted in. */
export const usageUnit = z.enum(USAGE_UNITS);
export type UsageUnit = z.infer<typeof usageUnit>;

/** The version of a row that people edit; a stale one is refused. */
export const version = z.int().min(1).max(2_147_483_646, { error: 'no row was changed that often' });

/*
 * What no text has in it, as ranges that readers of patterns in other languages know too: control characters; what turns the direction of writing, so that a text reads as another; and what is not seen, so that two names look alike.
 */
const CONTROLS = '\\u0000-\\u0008\\u000b\\u000c\\u000e-\\u001f\\u007f-\\u009f';
const TURNS = '\\u202a-\\u202e\\u2066-\\u2069';
const UNSEEN =
  '\\u00ad\\u061c\\u180e\\u200b\\u200e\\u200f\\u2060-\\u2064\\u206a-\\u206f\\ufeff\\ufff9-\\ufffb';
const BREAKS = '\\t\\n\\r\\u2028\\u2029';

/** No half of a character: a language whose texts are made of halves knows no pattern for that. */
const whole = z.string().refine((text) => !/\p{Cs}/u.test(text), {
  error: 'has half a character in it',
});

/** Characters that are written, lines and tabs among them; control characters and halves of one have no place in a record. */
export const written = whole.regex(new RegExp(`^[^${CONTROLS}${TURNS}]*$`, 'u'), {
  error: 'has a character in it that cannot be written',
});

/** Characters of a single line. */
const inOneLine = whole
  .normalize()
  .trim()
  .regex(new RegExp(`^[^${CONTROLS}${TURNS}${UNSEEN}${BREAKS}]*$`, 'u'), {
    error: 'is one line, of characters that can be written and seen',
  });

const tooLong = (most: number) => `there is room for ${most} characters here`;

/** A line a person writes: a name, a place, a mark. */
export const line = (most: number) =>
  inOneLine.min(1, { error: 'this cannot stay empty' }).max(most, { error: tooLong(most) });

/** A line a person may leave empty. */
export const remark = (most: number) => inOneLine.max(most, { error: tooLong(most) });

/** A text of several lines. */
export const passage = (most: number) =>
  written
    .trim()
    .min(1, { error: 'this cannot stay empty' })
    .max(most, { error: tooLong(most) });

/** A text of several lines that a person may leave empty. */
export const remarks = (most: number) => written.trim().max(most);

/** When a device did what it sends, which may be long before it could be sent; null where it is done as it is sent. */
export const takenAt = moment.nullable().default(null);

/** Something put out of the way with its whole record: when, by whom, and why. */
export const putAway = z.object({ at: moment, by: z.string(), why: z.string() });
export type PutAway = z.infer<typeof putAway>;
