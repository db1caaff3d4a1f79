import { hasMeter, type UsageUnit } from './usageUnit.ts';

/** Running that a drift is said over: what a person can hold in the head. */
const OVER = 100;
const IN = { mm: { a: 1000, unit: 'µm', digits: 1 }, thou: { a: 1000 / 25.4, unit: 'thou', digits: 2 } };

/** A drift as it is said: how much, which way, and over how much running. */
export interface SaidDrift {
  /** its size, as a figure alone */
  readonly figure: string;
  readonly way: 'tighter' | 'looser' | 'steady';
  /** all of it: `4.4 µm tighter per 100 hours` */
  readonly words: string;
}

/**
 * Says how fast a gap moves.
 *
 * @param perUnit mm a unit of usage; negative where it gets tighter
 * @param usageUnit what its meter counts
 * @param unit what lengths are read in
 * @returns null where nothing counts what it runs
 * @example driftInWords(-0.000044, 'hours', 'mm')?.words // '4.4 µm tighter per 100 hours'
 */
export function driftInWords(perUnit: number, usageUnit: UsageUnit, unit: 'mm' | 'thou'): SaidDrift | null {
  if (!hasMeter(usageUnit)) return null;
  const { a, unit: name, digits } = IN[unit];
  const figure = Math.abs(perUnit * OVER * a).toFixed(digits);
  const per = `per ${OVER} ${usageUnit}`;
  if (Number(figure) === 0)
    return {
      figure,
      way: 'steady',
      words: `steady: under ${(0.1 ** digits).toFixed(digits)} ${name} ${per}`,
    };
  const way = perUnit < 0 ? 'tighter' : 'looser';
  return { figure, way, words: `${figure} ${name} ${way} ${per}` };
}
