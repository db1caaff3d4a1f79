import {
  findings,
  lastChange,
  pointsHeld,
  provenBy,
  type BuildState,
  type RoundState,
} from '../builds/index.ts';
import { mmFromTenths } from '../length/index.ts';
import { hasLimits, type KnownGap, type limitedPoints, type LimitedPoint } from '../measuring/index.ts';
import { aimFor, leftByPiece, type Aim, type OwnAim } from '../setting/index.ts';

/** A reading with the gap it leaves known; mm. */
type GapReading = RoundState['readings'][number] & KnownGap;

/** A build, as far as the proof of its points goes. */
interface ProvedBuild<Reading extends GapReading> extends Omit<BuildState, 'rounds' | 'settings' | 'sheet'> {
  readonly sheet: BuildState['sheet'] & Parameters<typeof limitedPoints>[0];
  readonly rounds: readonly (Omit<RoundState, 'readings'> & { readonly readings: readonly Reading[] })[];
  readonly settings: readonly (BuildState['settings'][number] & {
    readonly installed: number | null;
    readonly fitted: number | null;
  })[];
  readonly aim: Aim;
  readonly ownAims: { readonly figures: readonly OwnAim[] } | null;
}

/** One point from how it was found to how it is proved, with the limits that its proof is held against; mm. */
export interface ProofLine<Reading extends GapReading = GapReading> {
  readonly point: LimitedPoint;
  readonly found: Reading | null;
  /** what was done should have left: by the difference of two pieces, or where a screw was aimed; null where nothing says */
  readonly forecast: KnownGap | null;
  readonly proved: Reading | null;
  /** nobody touched it, and what it was found at proves it */
  readonly leftAsFound: boolean;
}

/**
 * Lists every point as it was found, as what was done should have left it, and as it is proved: what the page shows before a build is
 * signed, and its papers after.
 *
 * @example proofLines(build).length // 8
 */
export function proofLines<Reading extends GapReading>(
  build: ProvedBuild<Reading>,
): readonly ProofLine<Reading>[] {
  const proofs = provenBy(build);
  const found = findings(build.rounds.filter(({ kind }) => kind === 'as-found'));
  return pointsHeld(build.sheet, 'proved', build.settings)
    .filter(hasLimits)
    .map((point) => {
      const proved = proofs.get(point.key) ?? null;
      return {
        point,
        found: found.get(point.key) ?? null,
        forecast: forecastAt(build, point),
        proved,
        leftAsFound: proved !== null && found.get(point.key) === proved,
      };
    });
}

/** What the last change at a point should have left: by its piece, or where its screw was aimed. */
function forecastAt<Reading extends GapReading>(
  build: ProvedBuild<Reading>,
  point: LimitedPoint,
): KnownGap | null {
  if (lastChange(build.settings, point.key)?.kind !== 'turned') return leftByPiece(build, point);
  const aimed = mmFromTenths(aimFor(build.aim, point.role, point.toSet, build.ownAims?.figures));
  return { lo: aimed, hi: aimed };
}
