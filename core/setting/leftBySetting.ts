import { lastChange, type RoundState, type SettingState } from '../builds/index.ts';
import { mmFromTenths, tenthsFromMm } from '../length/index.ts';
import { whyNoProof, type Interval, type KnownGap } from '../measuring/index.ts';
import type { Pattern, Role } from '../sheets/index.ts';
import { whatItLeaves } from './advise.ts';

/** What was done at a point, with the pieces where it was one that was fitted; mm. */
type PieceSetting = SettingState & { readonly installed: number | null; readonly fitted: number | null };

/** A build, as far as what its settings left goes. */
interface PiecesFitted<Setting extends PieceSetting> {
  readonly sheet: { readonly pattern: Pattern };
  readonly settings: readonly Setting[];
  readonly rounds: readonly (Pick<RoundState, 'kind'> & {
    readonly readings: readonly (RoundState['readings'][number] & KnownGap)[];
  })[];
}

/** A point, and the limits it is judged by. */
interface SetPoint {
  readonly key: string;
  readonly role: Role;
  readonly limits: Parameters<typeof whatItLeaves>[0]['limits'];
}

/**
 * Works out what the piece that was last fitted at a point left there: by what was found before, and the difference of the two
 * pieces.
 *
 * @returns the gap in mm; null where nothing was fitted last, or what was found says nothing
 * @example leftByPiece(build, { ...points[0], limits: limits[0] }) // null
 */
export function leftByPiece<Setting extends PieceSetting>(
  { sheet, settings, rounds }: PiecesFitted<Setting>,
  { key, role, limits }: SetPoint,
): { readonly lo: number; readonly hi: number } | null {
  const change = lastChange(settings, key);
  if (change?.kind !== 'fitted' || change.installed === null || change.fitted === null) return null;
  const before = rounds
    .flatMap(({ readings }) => readings.filter(({ point }) => point === key))
    .filter((reading) => whyNoProof(reading, null) === null)
    .filter(({ takenAt }) => Date.parse(takenAt) <= Date.parse(change.at))
    .toSorted((a, b) => Date.parse(a.takenAt) - Date.parse(b.takenAt))
    .at(-1);
  if (!before) return null;
  const measured: Interval = {
    ...{ lo: tenthsFromMm(before.lo), hi: before.hi === null ? null : tenthsFromMm(before.hi) },
    floor: before.floor ?? true,
  };
  const left = whatItLeaves(
    { pattern: sheet.pattern, role, limits, measured, installed: tenthsFromMm(change.installed) },
    tenthsFromMm(change.fitted),
  );
  return left && { lo: mmFromTenths(Math.round(left.lo)), hi: mmFromTenths(Math.round(left.hi)) };
}

/**
 * Narrows what a point was proved to be by what is known of its setting besides: its reading as it was set, and what its piece was
 * to leave. What does not meet the proof is no better than it, and says nothing.
 *
 * Rule: the first observation of a point is all that is known of it then, not only the two blades it was proved between.
 *
 * @param proved mm, bounded on both sides
 * @example firstKnown({ lo: 0.15, hi: 0.2 }, [{ lo: 0.17, hi: 0.18 }]) // { lo: 0.17, hi: 0.18 }
 */
export function firstKnown(
  proved: { readonly lo: number; readonly hi: number },
  besides: readonly ({ readonly lo: number; readonly hi: number } | null)[],
): { readonly lo: number; readonly hi: number } {
  let known = proved;
  for (const other of besides) {
    if (other === null) continue;
    const both = { lo: Math.max(known.lo, other.lo), hi: Math.min(known.hi, other.hi) };
    if (both.lo <= both.hi) known = both;
  }
  return known;
}
