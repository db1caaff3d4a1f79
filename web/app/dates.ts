import { intlFormatDistance, parseISO } from 'date-fns';
import { dayInWords } from '@zero-lash/core/rechecks';

export { dayInWords };

/** What a clock and a calendar in a zone show; each zone's is made once, for it takes a while. */
const clocks = new Map<string, Intl.DateTimeFormat>();

/** A day of the calendar, `2031-03-12`, and a time of day, `14:05`, as they are in a zone. */
function inZone(moment: Date, zone: string): { readonly day: string; readonly time: string } {
  const clock =
    clocks.get(zone) ??
    new Intl.DateTimeFormat('en-GB', {
      ...{ timeZone: zone, hourCycle: 'h23', year: 'numeric', month: '2-digit', day: '2-digit' },
      ...{ hour: '2-digit', minute: '2-digit' },
    });
  clocks.set(zone, clock);
  const part = Object.fromEntries(clock.formatToParts(moment).map(({ type, value }) => [type, value]));
  return {
    day: `${part['year']}-${part['month']}-${part['day']}`,
    time: `${part['hour']}:${part['minute']}`,
  };
}

/** The day a moment lies on in a zone: `12 Mar 2031`. */
export const dayOfMomentInWords = (moment: string, zone: string) =>
  dayInWords(inZone(new Date(moment), zone).day);

/** Today in a zone, as a day of the calendar: `2031-03-12`. */
export const todayIn = (zone: string) => inZone(new Date(), zone).day;

/** A moment in a zone, with its year where that is not this one: `12 Mar, 14:05`, `12 Mar 2029, 14:05`. */
export function momentInWords(moment: string, zone: string): string {
  const { day, time } = inZone(new Date(moment), zone);
  const written = dayInWords(day);
  const thisYear = day.slice(0, 4) === todayIn(zone).slice(0, 4);
  return `${thisYear ? written.replace(/ \d+$/, '') : written}, ${time}`;
}

/** `3 days ago` */
export const agoInWords = (iso: string) =>
  intlFormatDistance(parseISO(iso), new Date(), { locale: 'en-GB', numeric: 'always' });
