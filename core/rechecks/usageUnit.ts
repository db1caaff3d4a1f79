/** What running is counted in; none where an engine has no meter, and is looked at by date, heat cycles and season alone. */
export const USAGE_UNITS = ['hours', 'km', 'miles', 'starts', 'events', 'none'] as const;

/** What running is counted in. */
export type UsageUnit = (typeof USAGE_UNITS)[number];

/**
 * Says whether the running of an engine is counted at all: without a meter nothing is due, worked out or forecast by running.
 *
 * @example hasMeter('none') // false
 */
export const hasMeter = (unit: UsageUnit): boolean => unit !== 'none';

/**
 * Says what an engine has run.
 *
 * @param figure how it is written; as it is if absent
 * @example runningInWords(120, 'hours') // '120 hours'
 * @example runningInWords(0, 'none') // 'no meter'
 */
export const runningInWords = (
  usage: number,
  unit: UsageUnit,
  figure: (usage: number) => string = String,
): string => (hasMeter(unit) ? `${figure(usage)} ${unit}` : 'no meter');
