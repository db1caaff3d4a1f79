import { findings, lastChange, provenBy } from '@zero-lash/core/builds';
import { mmFromTenths } from '@zero-lash/core/length';
import type { KnownGap, Verdict } from '@zero-lash/core/measuring';
import { aimFor, leftByPiece } from '@zero-lash/core/setting';
import type { BuildView } from '../builds/buildView.ts';
import { limitedPoints, type LimitedPoint } from '../builds/points.ts';

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

/** What the last change at a point should have left: by its piece, or where its screw was aimed. */
function forecastAt(build: BuildView, point: LimitedPoint): KnownGap | null {
  if (lastChange(build.settings, point.key)?.kind !== 'turned') return leftByPiece(build, point);
  const aimed = mmFromTenths(aimFor(build.aim, point.role, point.limits, build.ownAims?.figures));
  return { lo: aimed, hi: aimed };
}
