import { differenceInCalendarDays, format, formatDistanceToNowStrict, parseISO } from 'date-fns';

/** `12 Mar 2031` */
export const dayInWords = (iso: string) => format(parseISO(iso), 'd MMM yyyy');

/** `12 Mar, 14:05` */
export const momentInWords = (iso: string) => format(parseISO(iso), 'd MMM, HH:mm');

/** `3 days ago` */
export const agoInWords = (iso: string) => formatDistanceToNowStrict(parseISO(iso), { addSuffix: true });

/** `in 4 days`, `today`, `3 days late` */
export function daysLeftInWords(day: string, today: string): string {
  const left = differenceInCalendarDays(parseISO(day), parseISO(today));
  if (left === 0) return 'today';
  const days = Math.abs(left) === 1 ? '1 day' : `${Math.abs(left)} days`;
  return left > 0 ? `in ${days}` : `${days} late`;
}
