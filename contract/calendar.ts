import { z } from 'zod';
import { id, moment } from './values.ts';

/** A calendar feed of one's own, as it is listed: its address is shown once, when it is made. */
export const calendarFeed = z.object({ id, madeAt: moment, withdrawnAt: moment.nullable() });
export type CalendarFeed = z.infer<typeof calendarFeed>;

/** A feed that was just made, with the path of its address, which nobody is told again. */
export const newCalendarFeed = calendarFeed.extend({ path: z.string() });
export type NewCalendarFeed = z.infer<typeof newCalendarFeed>;
