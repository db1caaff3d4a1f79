import { perPattern } from '../sheets/perPattern.ts';
import { lashPoints } from '../sheets/lashPoints.ts';
import { CYCLE, inCycle, openSpan } from './openSpan.ts';

/** One position of a maker's own tables: where the crank stands, what is measured there, and what tells it. */
export interface TableStop {
  /** crank degrees, 0 to under 720 */
  readonly angle: number;
  readonly points: readonly string[];
  /** the valves whose being fully open tells it; none where the table goes by the crank */
  readonly open: readonly string[];
}

/**
 * The rows of a maker's table of pairs as stops: each where the valve that is watched stands fully open, halfway between where the
 * valves are that are watched together. Two rows of one place are one stop.
 *
 * @example pairStops({ ...inlineFour, makersPairs: [{ open: ['1E'], points: ['2E'] }] })[0].points // ['2E']
 * Rule: the school that goes by the valve that is fully open; the maker's own table of it governs.
 */
export const pairStops = perPattern((pattern): readonly TableStop[] => {
  const middles = new Map(
    lashPoints(pattern).map((point) => {
      const span = openSpan(point, pattern.cylinders, pattern.timing);
      return [point.key, inCycle(span.start + span.length / 2)];
    }),
  );
  const stops = new Map<number, TableStop>();
  for (const { open, points } of pattern.makersPairs ?? []) {
    const [first = 0, ...others] = open.flatMap((key) => middles.get(key) ?? []);
    const aside = others.map((middle) => inCycle(middle - first + CYCLE / 2) - CYCLE / 2);
    const angle = inCycle(first + aside.reduce((sum, each) => sum + each, 0) / (aside.length + 1));
    const there = stops.get(angle);
    stops.set(angle, {
      angle,
      open: [...(there?.open ?? []), ...open],
      points: [...(there?.points ?? []), ...points],
    });
  }
  return [...stops.values()];
});

/**
 * Lists every position at which a maker's own tables have something measured: by the crank, and by the valve that is fully open.
 *
 * @example tableStops({ ...inlineFour, makersStops: [{ angle: 0, points: ['1I'] }] }) // [{ angle: 0, points: ['1I'], open: [] }]
 */
export const tableStops = perPattern((pattern): readonly TableStop[] => [
  ...(pattern.makersStops ?? []).map((stop) => ({ ...stop, open: [] })),
  ...pairStops(pattern),
]);
