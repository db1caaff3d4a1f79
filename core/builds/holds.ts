import { lashPoints, meansFor, type Pattern } from '../sheets/index.ts';
import type { KeptTick } from './standing.ts';
import { STAGES } from './stages.ts';

const MARK = 'tool ';

/**
 * Names the check that is ticked as a tool goes in that holds a valve's bucket down, and unticked as it comes out.
 *
 * @example toolAt('3E') // 'tool 3E'
 */
export const toolAt = (point: string): string => `${MARK}${point}`;

/**
 * Says at which point a check is about a tool that holds the valve down; null where it is another kind of check.
 *
 * @example pointHeldDown('tool 3E') // '3E'
 */
export const pointHeldDown = (check: string): string | null =>
  check.startsWith(MARK) ? check.slice(MARK.length) : null;

/**
 * Lists the points whose piece is changed with the valve held down by a tool: shims that lie on top of a bucket.
 *
 * @example heldDownToSet(pattern) // ['1I', '1E']
 */
export function heldDownToSet(pattern: Pattern): readonly string[] {
  return lashPoints(pattern)
    .filter(({ role }) => {
      const means = meansFor(pattern, role);
      return means.kind === 'shim' && means.seat === 'on-bucket';
    })
    .map(({ key }) => key);
}

/**
 * Lists the points at which a tool is in now. While there is one the crank does not turn: the piston meets the valve.
 *
 * @param ticks each check as it was last ticked, or unticked
 * @example toolsIn(build.ticks) // ['3E']
 */
export function toolsIn(ticks: readonly Pick<KeptTick, 'stage' | 'check' | 'done'>[]): readonly string[] {
  const setting = STAGES.find(({ sets }) => sets)!.key;
  return ticks.flatMap(({ stage, check, done }) => {
    const point = done && stage === setting ? pointHeldDown(check) : null;
    return point === null ? [] : [point];
  });
}
