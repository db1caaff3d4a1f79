import type { ReadingRow, Round } from '@zero-lash/contract/measuring';
import type { Setting } from '@zero-lash/contract/setting';
import { pointStatus, readingAt, type BearingChange } from '@zero-lash/core/builds';
import { formatLength, tenthsFromMm, type ShopUnit } from '@zero-lash/core/length';
import type { LashPoint } from '@zero-lash/core/sheets';
import type { HeadPoint } from '../drawings/HeadDrawing.tsx';

/** What the head map shows for a round's readings. */
export function headPoints(
  points: readonly (LashPoint & { readonly stamped?: ShopUnit })[],
  round: (Round & { readonly waiting?: ReadonlySet<string> }) | undefined,
  figure: (mm: number) => string,
  done: ReadonlySet<string>,
  /** what was last changed at a point, as far as that bears on this round */
  changed: LastChange,
  closed: ReadonlySet<string> | null = null,
  /** what is not measured here, and why */
  aside: ReadonlyMap<string, 'passed-over' | 'unopened' | 'unreached' | 'apart'> = new Map(),
): Record<string, HeadPoint> {
  return Object.fromEntries(
    points.map(({ key, stamped = 'mm' }) => {
      const reading = readingAt(round, key);
      const change = changed(key);
      const known = pointStatus(reading, change);
      // with nothing in a gap is neither tight nor loose, however wide
      const state = aside.get(key) ?? (change?.kind === 'bare' ? 'bare' : known);
      return [
        key,
        {
          state,
          ...(known === 'changed-since' ? pieceIn(change, stamped) : gapIn(reading, figure)),
          done: done.has(key) ? 'set' : undefined,
          closed: closed?.has(key),
          waiting: round?.waiting?.has(key),
        },
      ];
    }),
  );
}

/** What was last done that bears on a point: the piece that was fitted there, if any was. */
export type Change = Pick<Setting, 'fitted' | 'kind'> & BearingChange;

/** What was last changed, as far as it bears on a point; null where nothing was, or where it does not bear on what is shown. */
export type LastChange = (key: string) => Change | null;

/** The piece that was fitted, where the gap it leaves is not known yet. */
function pieceIn(change: Change | null, stamped: ShopUnit): Pick<HeadPoint, 'piece'> {
  return change?.fitted ? { piece: formatLength(tenthsFromMm(change.fitted), stamped) } : {};
}

/**
 * Where a gap is, if at all, too wide, or nothing bounds it from below, its greater end says most; otherwise the lesser one does:
 * tight is the dangerous side.
 */
function gapIn(reading: ReadingRow | undefined, figure: (mm: number) => string): Pick<HeadPoint, 'gap'> {
  if (!reading) return {};
  const { lo, hi, floor, verdict } = reading;
  if (floor === false && hi !== null) return { gap: { lo: null, hi: figure(hi), governs: 'hi' } };
  const wide = hi !== null && (verdict === 'loose' || verdict === 'undecided-high');
  return { gap: { lo: figure(lo), hi: hi === null ? '…' : figure(hi), governs: wide ? 'hi' : 'lo' } };
}
