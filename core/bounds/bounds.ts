/** What one quantity can be: outside it is refused; outside what is usual it is asked about. */
export interface Bound {
  readonly unit: string;
  readonly least: number;
  readonly most: number;
  /** what is taken without a question; all of it where this is left out */
  readonly usual?: { readonly from: number; readonly to: number };
  /** sentences for what lies under it and over it */
  readonly under: string;
  readonly over: string;
}

const bound = (
  unit: string,
  least: number,
  most: number,
  sentences: Pick<Bound, 'under' | 'over'>,
  usual?: Bound['usual'],
): Bound => ({ unit, least, most, ...sentences, ...(usual ? { usual } : {}) });

/**
 * What can be, quantity by quantity: the one table of bounds. Every way in goes by it: page, file, record and interface for programs.
 *
 * Rule: our own wide bounds for engines of up to twelve cylinders; what lies outside is a slip of the point, of the unit or of the field,
 * and never a part that somebody holds in their hand. Where a sheet, a drawer or a meter says what is to be expected, what is asked about
 * goes by that: see `limitWarning`, `pieceWarning`, `torqueWarning`, `runningWarning`, `figureWarning` and `parseLength`.
 */
export const BOUNDS = {
  /** with nothing in, a whole piece may be missing from it */
  gap: bound('mm', 0, 10, {
    under: 'a clearance is never negative',
    over: 'no clearance is over 10 mm',
  }),
  limit: bound(
    'mm',
    0,
    5,
    { under: 'a clearance is not negative', over: 'no clearance is over 5 mm' },
    { from: 0, to: 1 },
  ),
  /** from the least of a band to its greatest */
  band: bound('mm', 0, 2, {
    under: 'the greatest is not below the least',
    over: 'a band of over 2 mm bounds nothing',
  }),
  thickness: bound('mm', 0.1, 15, {
    under: 'no such piece is under 0.1 mm',
    over: 'no such piece is over 15 mm',
  }),
  blade: bound('mm', 0.01, 5, {
    under: 'no blade is under 0.01 mm',
    over: 'no blade is over 5 mm',
  }),
  /** a screw that is set: over four turns it is taken out, and put in again */
  turned: bound('°', -1440, 1440, {
    under: 'no screw is set by over four turns',
    over: 'no screw is set by over four turns',
  }),
  cut: bound(
    'mm',
    0,
    3,
    { under: 'a depth is not negative', over: 'nothing is cut over 3 mm deep' },
    { from: 0, to: 1 },
  ),
  torque: bound('N·m', 0.1, 500, {
    under: 'a torque of nothing is “finger-tight” or “nipped up”',
    over: 'no fastening of a valve train or a head is tightened to over 500 N·m',
  }),
  wrench: bound('N·m', 0.1, 1000, {
    under: 'no wrench here is set under 0.1 N·m',
    over: 'no wrench here is set over 1000 N·m',
  }),
  temperature: bound('°C', -40, 200, {
    under: 'no engine is colder than -40 °C',
    over: 'no engine is measured hotter than 200 °C',
  }),
  length: bound('mm', 0, 2000, {
    under: 'a measurement is not negative',
    over: 'no part of a valve train is over 2000 mm',
  }),
  force: bound('N', 0, 10_000, {
    under: 'a force is not negative',
    over: 'no spring is pressed by over 10,000 N',
  }),
  share: bound('%', 0, 100, { under: 'a share is not negative', over: 'a share is at most 100 %' }),
  pressure: bound('bar', 0, 100, {
    under: 'a pressure is not negative',
    over: 'no cylinder is put under over 100 bar here',
  }),
  hours: bound('hours', 0, 500_000, {
    under: 'a running figure is not negative',
    over: 'no engine has run over 500,000 hours',
  }),
  km: bound('km', 0, 9_999_999, {
    under: 'a running figure is not negative',
    over: 'no engine has run that far',
  }),
  miles: bound('miles', 0, 6_200_000, {
    under: 'a running figure is not negative',
    over: 'no engine has run that far',
  }),
  starts: bound('starts', 0, 1_000_000, {
    under: 'a running figure is not negative',
    over: 'no engine was started that often',
  }),
  events: bound('events', 0, 1_000_000, {
    under: 'a running figure is not negative',
    over: 'no engine went through so many',
  }),
  none: bound('', 0, 0, {
    under: 'a running figure is not negative',
    over: 'it has no meter: its running is not counted',
  }),
} as const satisfies Record<string, Bound>;
export type Quantity = keyof typeof BOUNDS;

/** What is measured while a head is open, by its unit. */
export const MEASURED_IN = {
  mm: 'length',
  N: 'force',
  '%': 'share',
  bar: 'pressure',
} as const satisfies Readonly<Record<string, Quantity>>;

/**
 * Says why a figure cannot be: it is refused.
 *
 * @param value in the unit of its quantity
 * @returns null where it can be
 * @example impossible('gap', 25) // 'no clearance is over 10 mm'
 */
export function impossible(quantity: Quantity, value: number): string | null {
  const { least, most, under, over } = BOUNDS[quantity];
  if (value < least) return under;
  return value > most ? over : null;
}

/**
 * Says whether a figure can be, and is so seldom what was meant that it is asked about.
 *
 * @param value in the unit of its quantity
 * @example isUnusual('cut', 1.2) // true
 */
export function isUnusual(quantity: Quantity, value: number): boolean {
  const { usual }: Bound = BOUNDS[quantity];
  return (
    usual !== undefined && impossible(quantity, value) === null && (value < usual.from || value > usual.to)
  );
}

/** Years before and after today within which a day of each kind lies. */
const YEARS = {
  /** an instrument's check that is due */
  check: { before: 10, after: 10 },
  /** a day an engine stands on the bench, or a recheck is moved to */
  recheck: { before: 1, after: 20 },
  /** a day on which a meter was read */
  meter: { before: 60, after: 0 },
} as const;

/**
 * Says why a day cannot be meant.
 *
 * @param day and `today`: `2031-03-12`
 * @returns null where it can be
 * @example impossibleDay('check', '1900-01-01', '2031-03-12') // 'that is over 10 years ago'
 */
export function impossibleDay(kind: keyof typeof YEARS, day: string, today: string): string | null {
  const { before, after } = YEARS[kind];
  const moved = (years: number) =>
    `${String(Number(today.slice(0, 4)) + years).padStart(4, '0')}${today.slice(4)}`;
  if (day < moved(-before)) return `that is over ${before === 1 ? 'a year' : `${before} years`} ago`;
  if (day > moved(after))
    return after === 0 ? 'that has not come yet' : `that is over ${after} years from now`;
  return null;
}

/**
 * Whether a text says anything: a reason of a full stop, or of one letter, gives none.
 *
 * @example saysSomething('.') // false
 */
export const saysSomething = (text: string): boolean => /[\p{L}\p{N}].*[\p{L}\p{N}]/su.test(text);
