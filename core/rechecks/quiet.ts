/** The hours of the day in which nobody is told anything, by the clock of the shop's zone: `19:00` to `07:00`. */
export interface QuietHours {
  readonly from: string;
  readonly to: string;
}

const STEP_MS = 60_000;
/** No night is longer, whatever its clocks do. */
const LONGEST_MS = 26 * 3_600_000;

const minutesOf = (time: string) => Number(time.slice(0, 2)) * 60 + Number(time.slice(3, 5));

/** Minutes since midnight by the clock of a zone. */
function clockIn(zone: string, at: number): number {
  return minutesOf(
    new Intl.DateTimeFormat('en-GB', {
      timeZone: zone,
      hour: '2-digit',
      minute: '2-digit',
      hourCycle: 'h23',
    }).format(at),
  );
}

/**
 * Says whether a moment lies in the quiet hours; from and to alike there are none.
 *
 * @example isQuiet(Date.parse('2031-01-01T22:00Z'), 'UTC', { from: '19:00', to: '07:00' }) // true
 */
export function isQuiet(at: number, zone: string, { from, to }: QuietHours): boolean {
  const [begins, ends, now] = [minutesOf(from), minutesOf(to), clockIn(zone, at)];
  if (begins === ends) return false;
  return begins < ends ? now >= begins && now < ends : now >= begins || now < ends;
}

/**
 * Finds the first moment from a moment on at which somebody may be told something. The clock is asked, minute by minute, so
 * that an hour which summer time swallows or gives twice is neither missed nor waited for.
 *
 * @param at ms since 1970
 * @returns ms; the moment itself where it is not quiet
 * @example quietUntil(Date.parse('2031-01-01T22:00Z'), 'UTC', { from: '19:00', to: '07:00' }) // Date.parse('2031-01-02T07:00Z')
 */
export function quietUntil(at: number, zone: string, quiet: QuietHours): number {
  if (!isQuiet(at, zone, quiet)) return at;
  const begins = Math.ceil(at / STEP_MS) * STEP_MS;
  for (let then = begins; then <= begins + LONGEST_MS; then += STEP_MS)
    if (!isQuiet(then, zone, quiet)) return then;
  return at;
}
