import { findings, lastChange, provenBy } from '@zero-lash/core/builds';
import { gainAt } from '@zero-lash/core/headwork';
import { mmFromTenths, tenthsFromMm } from '@zero-lash/core/length';
import { whyNoProof, type Verdict } from '@zero-lash/core/measuring';
import { aimFor } from '@zero-lash/core/setting';
import type { BuildView } from '../builds/buildView.ts';
import { limitedPoints, type LimitedPoint } from '../builds/points.ts';

/** A gap with both its ends, as far as they are known; mm. */
export interface KnownGap {
  readonly lo: number;
  readonly hi: number | null;
}

/** One point from how it was found to how it is proved. */
export interface ProofLine {
  readonly point: LimitedPoint;
  readonly found: (KnownGap & { readonly verdict: Verdict }) | null;
  /** what was done should have left: by the difference of two pieces, or where a screw was aimed; null where nothing says */
  readonly forecast: KnownGap | null;
  readonly proved: (KnownGap & { readonly verdict: Verdict }) | null;
}

/** Lists every point as it was found, as what was done should have left it, and as it is proved. */
export function proofLines(build: BuildView): readonly ProofLine[] {
  const proofs = provenBy(build);
  const found = findings(build.rounds.filter(({ kind }) => kind === 'as-found'));
  return limitedPoints(build.sheet).map((point) => ({
    point,
    found: found.get(point.key) ?? null,
    forecast: forecastAt(build, point),
    proved: proofs.get(point.key) ?? null,
  }));
}

/** What the last change at a point should have left. */
function forecastAt(build: BuildView, point: LimitedPoint): KnownGap | null {
  const change = lastChange(build.settings, point.key);
  if (!change || change.kind === 'bare') return null;
  if (change.kind === 'turned') {
    const limits = { min: tenthsFromMm(point.min), max: tenthsFromMm(point.max) };
    const aimed = mmFromTenths(aimFor(build.aim, point.role, limits, build.ownAims?.figures));
    return { lo: aimed, hi: aimed };
  }
  if (change.installed === null || change.fitted === null) return null;
  // by what was known there before it was changed
  const before = build.rounds
    .flatMap(({ readings }) => readings.filter((reading) => reading.point === point.key))
    .filter((reading) => whyNoProof(reading, null) === null)
    .filter(({ takenAt }) => Date.parse(takenAt) <= Date.parse(change.at))
    .toSorted((a, b) => Date.parse(a.takenAt) - Date.parse(b.takenAt))
    .at(-1);
  if (!before || before.hi === null) return null;
  const by = gainAt(build.sheet.pattern, point) * (change.installed - change.fitted);
  const left = (mm: number) => Math.round((mm + by) * 10_000) / 10_000;
  return { lo: left(before.lo), hi: left(before.hi) };
}
