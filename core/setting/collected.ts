import { setAtItsStop } from '../builds/index.ts';
import { mmFromTenths, tenthsFromMm } from '../length/index.ts';
import { meansFor } from '../sheets/index.ts';
import { adviseSetting } from './advise.ts';
import { besideTheEngine, piecePoints, type PiecePoint, type PiecesKept } from './planInput.ts';
import type { SetBuild } from './setBuild.ts';

/** What there is to fit from, and how far inside a band it is to leave a gap; mm. */
export interface PieceChoice {
  /** null where it is not known on this device */
  readonly drawer: PiecesKept | null;
  readonly guard: number;
}

/**
 * Says whether the piece of a point that is out is left for the end of the lap, where all of them are planned at once, instead of being
 * fitted where the crank stands.
 *
 * Rule: a piece on its bucket is fitted at the stop where the drawer, or what lies beside the engine, holds one that surely brings the
 * gap in; else it is collected. What lies under a bucket is always collected. Where nobody knows what is in, it is measured at the stop.
 *
 * @param point as `piecePoints` has it, with its gap known
 * @example piecePoints(build).some((point) => isCollected(build, { ...point, gap: null }, { drawer: null, guard: 0 })) // false
 */
export function isCollected(
  build: Pick<SetBuild, 'sheet' | 'settings'>,
  { point, system, gap, installed, target, bare }: PiecePoint,
  { drawer, guard }: PieceChoice,
): boolean {
  const { pattern, pieceCharts } = build.sheet;
  if (gap === null || bare) return false;
  if (!setAtItsStop(pattern, point.role)) return true;
  if (installed === null) return false;
  const advice = adviseSetting({
    ...{ pattern, role: point.role, limits: point.toSet, target: tenthsFromMm(target) },
    measured: { lo: tenthsFromMm(gap.lo), hi: tenthsFromMm(gap.hi), floor: true },
    installed: tenthsFromMm(installed),
    chart: pieceCharts?.find(({ role }) => role === point.role),
    guard: tenthsFromMm(guard),
  });
  if (advice.kind !== 'fit') return true;
  if (advice.size === advice.installed) return false;
  // what the drawer holds is not known on this device: whoever stands there looks
  if (drawer === null && advice.status === 'certain') return false;
  return advice.status !== 'certain' || !isInHand(build, system, mmFromTenths(advice.size), drawer);
}

/** Whether a piece of a size lies in the drawer, or beside the engine; mm. */
export function isInHand(
  { settings }: Pick<SetBuild, 'settings'>,
  system: string,
  size: number,
  drawer: PiecesKept | null,
): boolean {
  const same = (mm: number) => tenthsFromMm(mm) === tenthsFromMm(size);
  if (besideTheEngine(settings).tray.some(same)) return true;
  const kept = drawer?.systems.find((each) => each.system === system)?.sizes ?? [];
  return kept.some(({ thickness, count }) => same(thickness) && count > 0);
}

/**
 * Lists the points of a lap whose pieces are collected: they are out, and nothing was fitted there since.
 *
 * @example [...collectedPoints(build, { drawer: null, guard: 0.004 })] // []
 */
export function collectedPoints(build: SetBuild, choice: PieceChoice): ReadonlySet<string> {
  const { pattern } = build.sheet;
  return new Set(
    piecePoints(build)
      .filter(
        (each) =>
          'sizes' in meansFor(pattern, each.point.role) &&
          (each.why === null || each.why === 'need-piece') &&
          each.out &&
          isCollected(build, each, choice),
      )
      .map(({ point }) => point.key),
  );
}
