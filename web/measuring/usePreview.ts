import type { Round } from '@zero-lash/contract/measuring';
import {
  intervalOf,
  judge,
  parseEntry,
  type Interval,
  type KnownGap,
  type MeasuredPoint,
  type Reading,
} from '@zero-lash/core/measuring';
import { mmFromTenths } from '@zero-lash/core/length';
import { useUnit } from '../app/lengths.ts';
import { useAppSelector } from '../app/store.ts';
import { draftKey } from '../app/drafts.ts';
import { likelyAt } from './expectedAt.ts';
import type { PointState } from '../drawings/states.ts';
import { useBench } from '../instruments/useBench.ts';

/** What is shown on the gap bar while a point is being measured; lengths in mm. */
export interface Preview extends KnownGap {
  readonly state: PointState;
}

/** What is known of a point from what is typed or tried there and not kept yet; null where nothing is. */
export function usePreview(round: Round | undefined, point: MeasuredPoint): Preview | null {
  const unit = useUnit();
  const bench = useBench();
  const place = round ? draftKey(round.id, point.key) : '';
  const text = useAppSelector((state) => state.drafts[place]);
  const tries = useAppSelector((state) => state.tries[place]);
  const asIndicator = useAppSelector((state) => state.preferences.feel === 'indicator');
  const entry = text?.trim() ? parseEntry(text, unit, likelyAt(point)) : null;
  if (entry && 'reading' in entry)
    return previewFrom(point, asRead(entry.reading, asIndicator, bench.indicator));
  if (!tries) return null;
  return previewFrom(point, { kind: 'tries', tries, repeatability: bench.repeatability });
}

function previewFrom(point: MeasuredPoint, reading: Reading): Preview {
  const interval = intervalOf(reading);
  return previewIn({ interval, verdict: judge(interval, point.limits).verdict });
}

/** An interval and its verdict, as they are drawn. */
export function previewIn({
  interval: { lo, hi, floor },
  verdict,
}: {
  readonly interval: Interval;
  readonly verdict: PointState;
}): Preview {
  return { lo: mmFromTenths(lo), hi: hi === null ? null : mmFromTenths(hi), floor, state: verdict };
}

const USUAL_UNCERTAINTY = 0.01;

/** One figure of an indicator is its value, give or take its uncertainty; of a blade, a light drag. */
export function asRead(
  reading: Reading,
  asIndicator: boolean,
  indicator: { readonly uncertainty: number } | null,
): Reading {
  if (!asIndicator || reading.kind !== 'drag') return reading;
  return { kind: 'value', value: reading.blade, uncertainty: indicator?.uncertainty ?? USUAL_UNCERTAINTY };
}
