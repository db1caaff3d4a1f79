import type { PiecePoint } from '@zero-lash/core/setting';
import { writeCsv } from '../app/writeCsv.ts';
import type { Plans } from './plans.ts';

const mm = (value: number | null) => (value === null ? '' : String(Math.round(value * 10_000) / 10_000));

/** Writes a plan as CSV: each point with what is in, what goes in, where that comes from and what it leaves; mm. */
export function writePlanCsv(points: readonly PiecePoint[], { assignments }: Plans['plan']): string {
  return writeCsv(
    ['point', 'gap from', 'gap to', 'in now', 'goes in', 'from', 'leaves from', 'leaves to', 'status'],
    assignments.map(({ key, source, from, thickness, lo, hi, status }) => {
      const each = points.find(({ point }) => point.key === key)!;
      return [
        ...[
          key,
          mm(each.gap?.lo ?? null),
          mm(each.gap?.hi ?? null),
          mm(each.bare ? null : each.installed),
          mm(thickness),
        ],
        ...[from ?? source, mm(lo), mm(hi), status],
      ];
    }),
  );
}
