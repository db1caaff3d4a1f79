import type { ReadingRow, Round } from '@zero-lash/contract/measuring';
import { intervalOf, judge, limitsFromMm, type Reading } from '@zero-lash/core/measuring';
import { mmFromTenths } from '@zero-lash/core/length';
import type { Pattern } from '@zero-lash/core/sheets';
import { mayMeasurePoint } from '@zero-lash/core/turning';
import type { OutboxItem } from './deviceStore.ts';

/** A round as this device has it: what the server has, with what is on its way laid over it. */
export interface RoundHere extends Round {
  /** points whose newest reading is not sent yet */
  readonly waiting: ReadonlySet<string>;
  readonly refused: readonly OutboxItem[];
}

/** Lays what is on its way over a round, judged by the same core that will judge it on the server. */
export function roundHere(
  round: Round,
  items: readonly OutboxItem[],
  points: readonly { readonly key: string; readonly min: number; readonly max: number }[],
  pattern: Pattern,
): RoundHere {
  const own = items.filter(({ roundId }) => roundId === round.id);
  const waiting = own.filter(({ refused }) => refused === null);
  const rows = new Map(round.readings.map((row) => [row.point, row]));
  for (const item of waiting) {
    const limits = points.find(({ key }) => key === item.reading.point);
    if (limits) rows.set(limits.key, rowFrom(item, limits, pattern, rows.get(limits.key)));
  }
  return {
    ...round,
    readings: [...rows.values()],
    waiting: new Set(waiting.map(({ reading }) => reading.point)),
    refused: own.filter(({ refused }) => refused !== null),
  };
}

function rowFrom(
  { key, by, roundId, reading: taken }: OutboxItem,
  limits: { readonly min: number; readonly max: number },
  pattern: Pattern,
  before: ReadingRow | undefined,
): ReadingRow {
  const reading = taken.reading as Reading;
  const interval = intervalOf(reading);
  const angle = taken.crankAngle ?? null;
  return {
    id: key,
    roundId,
    point: taken.point,
    reading: reading as never,
    asTyped: taken.asTyped,
    lo: mmFromTenths(interval.lo),
    hi: interval.hi === null ? null : mmFromTenths(interval.hi),
    ...judge(interval, limitsFromMm(limits)),
    doubtKept: taken.doubtKept ?? false,
    crankAngle: angle,
    offBase: angle !== null && !mayMeasurePoint(pattern, taken.point, angle),
    instrument: null,
    takenAt: taken.takenAt,
    blind: taken.blind ?? false,
    firstLook: before && taken.blind ? { by: before.by, lo: before.lo, hi: before.hi } : null,
    by,
    at: taken.takenAt,
    supersedes: before?.id ?? null,
    reason: taken.reason ?? '',
    superseded: false,
    earlier: before ? before.earlier + 1 : 0,
  };
}

/** A round as a second person sees it who must not see the first one's results. */
export function withoutOthers(round: RoundHere, me: string): RoundHere {
  return { ...round, readings: round.readings.filter(({ by, blind }) => by === me && blind) };
}
