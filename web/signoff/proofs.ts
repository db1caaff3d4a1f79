import { findings, lastChange, provenBy } from '@zero-lash/core/builds';
import { mmFromTenths, tenthsFromMm } from '@zero-lash/core/length';
import { whyNoProof, type KnownGap, type Verdict } from '@zero-lash/core/measuring';
import { aimFor, whatItLeaves } from '@zero-lash/core/setting';
import type { BuildView } from '../builds/buildView.ts';
import { gapInTenths, limitedPoints, type LimitedPoint } from '../builds/points.ts';

/** One point from how it was found to how it is proved; mm. */
export interface ProofLine {
  readonly point: LimitedPoint;
  readonly found: (KnownGap & { readonly verdict: Verdict }) | null;
  /** what was done should have left: by the difference of two pieces, or where a screw was aimed; null where nothing says */
  readonly forecast: KnownGap | null;
  readonly proved: (KnownGap & { readonly verdict: Verdict; readonly onLimit: boolean }) | null;
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
    const aimed = mmFromTenths(aimFor(build.aim, point.role, point.limits, build.ownAims?.figures));
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
  if (!before) return null;
  const left = whatItLeaves(
    {
      ...{ pattern: build.sheet.pattern, role: point.role, limits: point.limits },
      measured: gapInTenths(before),
      installed: tenthsFromMm(change.installed),
    },
    tenthsFromMm(change.fitted),
  );
  return left && { lo: mmFromTenths(Math.round(left.lo)), hi: mmFromTenths(Math.round(left.hi)) };
}
