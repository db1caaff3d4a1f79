import { perPattern } from './perPattern.ts';
import type { ValveTiming, Cylinder, Means, Pattern, Role, Locking } from './pattern.ts';

/** A place where a gap is measured and set. */
export interface LashPoint {
  /** such as `1I`, `3Eb`, `2I-c` (closing side), `4B` (brake) */
  readonly key: string;
  readonly cylinder: string;
  readonly role: Role;
  /** which of the cylinder's like valves, from 0 at the front */
  readonly index: number;
  /** crank degrees after its cylinder's firing TDC, where they differ from the pattern's timing */
  readonly opens?: number;
  readonly closes?: number;
}

/** What holds an adjuster, in words. */
export const LOCKING_WORDS: Readonly<Record<Locking, string>> = {
  'lock-nut': 'lock nut',
  'self-locking': 'self-locking',
  'inner-screw': 'locked by a screw inside it',
};

/** A role as a person says it. */
export const ROLE_WORDS: Readonly<Record<Role, string>> = {
  intake: 'intake',
  exhaust: 'exhaust',
  'intake-closing': 'intake, closing side',
  'exhaust-closing': 'exhaust, closing side',
  brake: 'brake rocker',
};

/**
 * Lists every lash point of a pattern, cylinder by cylinder in the maker's order, intakes first.
 *
 * One point a valve, except: a bridged pair shares one; a valve drawn shut has a second, for its closing side; a
 * brake rocker adds one.
 *
 * @example lashPoints(inlineFour).map((point) => point.key) // ['1I', '1E', '2I', '2E', ...]
 */
export const lashPoints = perPattern((pattern): readonly LashPoint[] =>
  pattern.cylinders.flatMap((cylinder) => [
    ...pointsOf(pattern, cylinder, 'intake'),
    ...pointsOf(pattern, cylinder, 'exhaust'),
    ...pattern.brakes
      .filter((brake) => brake.cylinder === cylinder.id)
      .map(({ opens, closes }) => ({
        key: `${cylinder.id}B`,
        cylinder: cylinder.id,
        role: 'brake' as const,
        index: 0,
        opens,
        closes,
      })),
  ]),
);

function pointsOf(pattern: Pattern, cylinder: Cylinder, role: 'intake' | 'exhaust'): LashPoint[] {
  const count = pattern.bridges[role] ? 1 : pattern.valves[role];
  const letter = role === 'intake' ? 'I' : 'E';
  return Array.from({ length: count }, (_, index) => {
    const name = `${cylinder.id}${letter}${count > 1 ? 'abc'[index] : ''}`;
    const opening: LashPoint = { key: name, cylinder: cylinder.id, role, index, ...lifted(pattern, role) };
    const closing: LashPoint = { ...opening, key: `${name}-c`, role: `${role}-closing` };
    return pattern.closingSide ? [opening, closing] : [opening];
  }).flat();
}

/**
 * With a decompressor a valve counts as off its base circle from the first of its two lifts to the end of the other, over the
 * side that leaves the firing TDC free: there no decompressor lifts, and there it is measured.
 */
function lifted(
  { decompressor, timing }: Pattern,
  role: 'intake' | 'exhaust',
): { readonly opens: number; readonly closes: number } | undefined {
  if (decompressor?.role !== role) return undefined;
  const [opens, closes] = liftAfterFiring(role, timing);
  const hulls = [-CYCLE, 0, CYCLE]
    .map((shift) => ({
      opens: Math.min(opens, decompressor.opens + shift),
      closes: Math.max(closes, decompressor.closes + shift),
    }))
    .sort((a, b) => a.closes - a.opens - (b.closes - b.opens));
  return hulls.find((hull) => hull.opens > 0 && hull.closes < CYCLE) ?? hulls[0];
}

/** A full cycle of a four-stroke engine, in crank degrees. */
const CYCLE = 720;

/**
 * Says when a valve is off its seat by its timing, in crank degrees after its cylinder's firing TDC: exhausts open before
 * the bottom dead centre that ends the power stroke and close after the overlap; intakes open before the overlap and close
 * after the bottom dead centre that follows.
 *
 * @example liftAfterFiring('exhaust', timing) // [126, 372]
 */
export function liftAfterFiring(
  role: 'intake' | 'exhaust',
  timing: ValveTiming,
): readonly [opens: number, closes: number] {
  return role === 'exhaust'
    ? [180 - timing.evoBbdc, 360 + timing.evcAtdc]
    : [360 - timing.ivoBtdc, 540 + timing.ivcAbdc];
}

/**
 * Says how a role's points are set on a pattern.
 *
 * @example meansFor(pattern, 'exhaust').kind // 'screw'
 */
export function meansFor(pattern: Pattern, role: Role): Means {
  return pattern.roleMeans[role] ?? pattern.means;
}

/**
 * Says in which unit the pieces of a role are called: the one they are stamped in, whatever a page reads in.
 *
 * @example pieceUnit(pattern, 'exhaust') // 'mm'
 */
export function pieceUnit(pattern: Pattern, role: Role): 'mm' | 'thou' {
  const means = meansFor(pattern, role);
  return 'stampedIn' in means && means.stampedIn === 'in' ? 'thou' : 'mm';
}

/**
 * Lists the roles a pattern's points have, in the order their limits are given.
 */
export function rolesOf(pattern: Pattern): Role[] {
  return [...new Set(lashPoints(pattern).map((point) => point.role))];
}
