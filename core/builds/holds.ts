import { checkKey, subjectOf } from '../checks/index.ts';
import { lashPoints, meansFor, type Pattern } from '../sheets/index.ts';
import { pointsBare } from './lastChange.ts';
import type { BuildState, CheckState } from './buildState.ts';
import { camCapsOffAt } from './disturbed.ts';
import { SETTING } from './stages.ts';

/**
 * Lists the points whose piece is changed with the valve held down by a tool: shims that lie on top of a bucket.
 *
 * @example heldDownToSet(pattern) // []
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
 * @example toolsIn([{ stage: 'set', check: 'tool 3E', done: true }]) // ['3E']
 */
export function toolsIn(ticks: readonly Pick<CheckState, 'stage' | 'check' | 'done'>[]): readonly string[] {
  return ticks.flatMap(({ stage, check, done }) => {
    const point = done && stage === SETTING ? subjectOf('tool', check) : null;
    return point === null ? [] : [point];
  });
}

/**
 * Says whether a point may be measured with nothing in: only a shim under a bucket, and only where the sheet says that the maker
 * allows it to be turned so.
 *
 * @example mayBeBare(pattern, 'intake')
 */
export function mayBeBare(pattern: Pattern, role: Parameters<typeof meansFor>[1]): boolean {
  const means = meansFor(pattern, role);
  return means.kind === 'shim' && means.seat === 'under-bucket' && (means.turnsBare ?? false);
}

/**
 * Lists the points with nothing in for which the crank is held: with a top shim or a finger's shim out always, until the old one or a
 * spare is back; with one under a bucket out until the caution is accepted for this build.
 *
 * @example bareHeld(build) // []
 */
export function bareHeld({
  sheet: { pattern },
  settings,
  ticks,
}: Pick<BuildState, 'sheet' | 'settings' | 'ticks'>): readonly string[] {
  const accepted = ticks.some(
    ({ stage, check, done }) => done && stage === SETTING && check === checkKey('turned-bare'),
  );
  const roles = new Map(lashPoints(pattern).map(({ key, role }) => [key, role]));
  return pointsBare(settings).filter((point) => {
    const role = roles.get(point);
    return role !== undefined && !(accepted && mayBeBare(pattern, role));
  });
}

/**
 * Says whether it is still to be said that the crank stands where cams come out, locked: before that no cap is slackened, on an engine
 * whose sheet has such a position.
 *
 * Rule: a cap let go under a lobe that presses throws its cam; a crank that turns with a cam out meets its valves.
 *
 * @example camsPositionOpen(build) // false where the sheet has none
 */
export function camsPositionOpen({ sheet, ticks }: Pick<BuildState, 'sheet' | 'ticks'>): boolean {
  const check = checkKey('cams-out-position');
  return (
    Boolean(sheet.pattern.camsOut) &&
    !ticks.some((tick) => tick.done && tick.stage === SETTING && tick.check === check)
  );
}

/**
 * Says whether a cam came out of its caps although nobody said that the crank stood where cams come out.
 *
 * @example camsOutUnsaid(build) // false
 */
export const camsOutUnsaid = (build: Pick<BuildState, 'sheet' | 'settings' | 'ticks'>): boolean =>
  camsPositionOpen(build) && camCapsOffAt(build) > -Infinity;
