import { TZDate } from '@date-fns/tz';
import { format, formatDistanceToNowStrict, parseISO } from 'date-fns';

export { dayInWords } from '@zero-lash/core/rechecks';

/** The day a moment lies on in a zone: `12 Mar 2031`. */
export const dayOfMomentInWords = (moment: string, zone: string) =>
  format(new TZDate(moment, zone), 'd MMM yyyy');

/** Today in a zone, as a day of the calendar: `2031-03-12`. */
export const todayIn = (zone: string) => format(TZDate.tz(zone), 'yyyy-MM-dd');

/** A moment in a zone, with its year where that is not this one: `12 Mar, 14:05`, `12 Mar 2029, 14:05`. */
export function momentInWords(moment: string, zone: string): string {
  const at = new TZDate(moment, zone);
  const thisYear = at.getFullYear() === TZDate.tz(zone).getFullYear();
  return format(at, thisYear ? 'd MMM, HH:mm' : 'd MMM yyyy, HH:mm');
}

/** `3 days ago` */
export const agoInWords = (iso: string) => formatDistanceToNowStrict(parseISO(iso), { addSuffix: true });
