import type { Verdict } from '../measuring/index.ts';
import type { BuildStatus } from './buildStatus.ts';

/** Why a stage may not be left, the crank not turned, or a build not signed: a stable code, a sentence, and the points it is about. */
export interface Obstacle {
  readonly code:
    | 'checks_open'
    | 'tool_in'
    | 'points_unmeasured'
    | 'points_off_base'
    | 'points_unreached'
    | 'points_undecided'
    | 'points_unset'
    | 'points_bare'
    | 'bridges_open'
    | 'cams_position_open'
    | 'assembly_open'
    | 'caps_open'
    | 'bare_held'
    | 'nothing_counted'
    | 'limits_unknown'
    | 'wear_undecided'
    | 'new_parts'
    | 'parts_off'
    | 'passes_open'
    | 'heat_cycles_open'
    | 'retorque_open'
    | 'head_open'
    | 'head_unopened'
    | 'points_out'
    | 'not_signed_off';
  readonly text: string;
  readonly points: readonly string[];
}

/** One obstacle over the points concerned; none where there are none. */
function over(
  code: Obstacle['code'],
  points: readonly string[],
  text: (named: string) => string,
): readonly Obstacle[] {
  return points.length === 0 ? [] : [{ code, text: text(points.join(', ')), points: [...points] }];
}

/** One obstacle over what is concerned, which are no points; none where there is nothing. */
function about(
  code: Obstacle['code'],
  what: readonly string[],
  text: (named: string) => string,
  between = ', ',
): readonly Obstacle[] {
  return what.length === 0 ? [] : [{ code, text: text(what.join(between)), points: [] }];
}

/** A tool holds valves down. Rule: the piston meets a valve that is held open. */
export const toolIn = ({ heldDown }: Pick<BuildStatus, 'heldDown'>): readonly Obstacle[] =>
  over(
    'tool_in',
    heldDown,
    (points) =>
      `A tool holds ${heldDown.length === 1 ? 'the valve' : 'valves'} down at ${points}: take it out, and say so, before the crank is turned.`,
  );

/** Points with nothing in. Rule: a lobe turned onto them can push the collets out. */
export const heldBare = ({ bareHeld }: Pick<BuildStatus, 'bareHeld'>): readonly Obstacle[] =>
  over(
    'bare_held',
    bareHeld,
    (points) =>
      `Nothing is in at ${points}: the crank stays where it is until the old piece or a spare is back, or, under a bucket and where the sheet says the maker allows it, the caution is accepted for this build.`,
  );

/** "Counted out" is ticked over nothing. */
export const notCounted = ({ nothingCounted }: BuildStatus): readonly Obstacle[] =>
  nothingCounted
    ? [
        {
          code: 'nothing_counted',
          text: 'Parts off is ticked, and no part is counted: count them, or write down here why there is nothing to count.',
          points: [],
        },
      ]
    : [];

/** Nobody signed the build. */
export const notSigned = ({ signedOff }: BuildStatus): readonly Obstacle[] =>
  signedOff ? [] : [{ code: 'not_signed_off', text: 'A lead signs the build off first.', points: [] }];

/** Points whose limits the sheet does not have. Rule: nothing is judged, set or signed without limits from a named source. */
export const withoutLimits = ({ unlimited }: BuildStatus): readonly Obstacle[] =>
  over(
    'limits_unknown',
    unlimited,
    (points) =>
      `The sheet has no limits for ${points} yet: nothing is set, proved or signed without them. When the book is here, a lead fills them in as a new revision, and this build goes over to it.`,
  );

/** Parts that are not back, and no lead wrote down why. */
export const countOff = ({ partsOff, partsExplained }: BuildStatus): readonly Obstacle[] =>
  about(
    'parts_off',
    partsExplained ? [] : partsOff,
    (parts) => `The count does not balance: ${parts}. Find it, or have a lead write down why.`,
  );

/** What is half tightened. */
export const halfTight = ({ passesOpen }: BuildStatus): readonly Obstacle[] =>
  about('passes_open', passesOpen, (passes) => `Begun to be tightened and not finished: ${passes}.`);

/** Heat cycles that the sheet asks for. */
export const cyclesOpen = ({ runIn: { cycles } }: BuildStatus): readonly Obstacle[] =>
  cycles > 0
    ? [
        {
          code: 'heat_cycles_open',
          text: `Run hot and left to go cold ${cycles === 1 ? 'once more' : `${cycles} times more`}, as the sheet says.`,
          points: [],
        },
      ]
    : [];

/** Heads that the sheet has tightened again after the heat cycles. */
export const retorqueOpen = ({ runIn: { heads } }: BuildStatus): readonly Obstacle[] =>
  about(
    'retorque_open',
    heads,
    (named) =>
      `The sheet has head ${named} tightened again after its heat cycles, cold: go back to Set, tick it there, and prove every gap again, since it moves them.`,
    ' and ',
  );

/** Heads that the sheet has tightened again at the first check. */
export const headToTighten = ({ headsToTighten }: BuildStatus): readonly Obstacle[] =>
  about(
    'head_open',
    headsToTighten,
    (named) =>
      `The sheet has head ${named} tightened again at the first check: feel every gap first, cold; then tighten it as the maker’s manual says, tick it, and read every gap again.`,
    ' and ',
  );

/** What was taken out and has nothing fitted since. */
export const leftBare = ({ bare }: BuildStatus): readonly Obstacle[] =>
  over(
    'points_bare',
    bare,
    (points) => `Nothing is in at ${points}: fit what was worked out, or what was in.`,
  );

/** What is put together and not looked at. */
export const halfTogether = ({ assemblyLeft }: BuildStatus): readonly Obstacle[] =>
  about('assembly_open', assemblyLeft, (steps) => `Put together and not looked at yet: ${steps}.`, '; ');

/** A cam was out, and its caps are not tightened. Rule: nothing is turned like that. */
export const loose = ({ capsLoose }: BuildStatus): readonly Obstacle[] =>
  about(
    'caps_open',
    capsLoose,
    (passes) => `A cam was out, and its caps are not tightened since: ${passes}.`,
  );

/** Broken or worn out parts that nobody decided about. */
export const undecidedWear = ({ undecided }: BuildStatus): readonly Obstacle[] =>
  about(
    'wear_undecided',
    undecided,
    (parts) => `Broken or at replace, and nobody says what becomes of it: ${parts}. Decide it at Wear.`,
    '; ',
  );

/** New parts whose figures nobody wrote down. */
export const withoutFigures = ({ newParts }: BuildStatus): readonly Obstacle[] =>
  about(
    'new_parts',
    newParts,
    (parts) => `Fitted new, and not measured: ${parts}. Their figures are written down at Wear first.`,
  );

/** Points set over a bridge that was not balanced. */
export const leftUnbalanced = ({ unbalanced }: BuildStatus): readonly Obstacle[] =>
  over(
    'bridges_open',
    unbalanced,
    (points) => `Set over a bridge that nobody says was balanced first: ${points}.`,
  );

/** Caps slackened, and nobody says that the crank stood where cams come out. */
export const camsOutOfPosition = ({ camsPositionUnsaid }: BuildStatus): readonly Obstacle[] =>
  camsPositionUnsaid
    ? [
        {
          code: 'cams_position_open',
          text: 'A cam came out, and nobody says that the crank stood where this engine’s cams come out, locked: look at it, and tick it.',
          points: [],
        },
      ]
    : [];

/** Points found out of spec or undecided, at which nothing was done. */
export function unset({ points, toSetBy, set }: BuildStatus): readonly Obstacle[] {
  const left = points.filter((key) => toSetBy.has(key) && toSetBy.get(key) !== 'in-spec' && !set.has(key));
  return over(
    'points_unset',
    left,
    (named) =>
      `${countPoints(left)} found out of spec or undecided ${left.length === 1 ? 'has' : 'have'} no setting recorded: ${named}.`,
  );
}

/** Points not measured as found. */
export const notFound = ({ points, asFound, offBase, ...status }: BuildStatus): readonly Obstacle[] =>
  unmeasured(measurable(points, status), asFound, offBase, 'as found');

/** Points of which nobody said that they cannot be reached, or came apart before they were measured. */
const measurable = (
  points: readonly string[],
  { unreached, apart }: Pick<BuildStatus, 'unreached' | 'apart'>,
) => points.filter((key) => !unreached.includes(key) && !apart.includes(key));

/** Heads whose covers are still on: another one is finished first. */
const headsUnopened = ({ unopened }: BuildStatus): readonly Obstacle[] =>
  unopened.map(({ head, points }) => ({
    code: 'head_unopened',
    text: `Head ${head} is not opened yet: close up what was opened, nothing left in it, then open head ${head} under Check and set.`,
    points,
  }));

/** Points that were neither felt nor set, where they are found and set in one lap: of the heads that are open. */
export const notFelt = (status: BuildStatus): readonly Obstacle[] => [
  ...unmeasured(
    measurable(status.points, status).filter((key) => !status.set.has(key) && !isUnopened(status, key)),
    status.toSetBy,
    status.offBase,
    'yet',
  ),
  // with nothing to prove, the next head is opened from here
  ...(status.circumstances.touched ? [] : headsUnopened(status)),
];

const isUnopened = ({ unopened }: Pick<BuildStatus, 'unopened'>, key: string) =>
  unopened.some(({ points }) => points.includes(key));

/** Points that nothing proves in their band since they were last set. */
export function unproved(status: BuildStatus): readonly Obstacle[] {
  const { points, proved, accepted, offBase, unreached } = status;
  const unseen = points.filter((key) => unreached.includes(key) && !proved.has(key) && !accepted.has(key));
  const measured = points.filter((key) => proved.has(key) && !accepted.has(key));
  const undecided = measured.filter((key) => isUndecided(proved.get(key)!));
  const out = measured.filter((key) => ['tight', 'loose'].includes(proved.get(key)!));
  return [
    ...headsUnopened(status),
    ...unmeasured(
      points.filter((key) => !unreached.includes(key) && !isUnopened(status, key)),
      proved,
      offBase,
      'since last set',
    ),
    ...over(
      'points_unreached',
      unseen,
      (named) =>
        `${countPoints(unseen)} said not to be reached: ${named}. A lead leaves it as it is, and its recheck comes sooner; or it is measured after all.`,
    ),
    ...over(
      'points_undecided',
      undecided,
      (named) => `${countPoints(undecided)} still undecided: ${named}. Try another blade.`,
    ),
    ...over('points_out', out, (named) => `${countPoints(out)} out of spec: ${named}. Go back to Set.`),
  ];
}

/** Verdicts that leave it open whether a point is in its band. */
export function isUndecided(verdict: Verdict): boolean {
  return verdict.startsWith('undecided') || verdict === 'conflict';
}

function unmeasured(
  points: readonly string[],
  verdicts: ReadonlyMap<string, Verdict>,
  offBase: ReadonlySet<string>,
  when: string,
): readonly Obstacle[] {
  const left = points.filter((key) => !verdicts.has(key));
  const off = left.filter((key) => offBase.has(key));
  const none = left.filter((key) => !offBase.has(key));
  return [
    ...over('points_unmeasured', none, (named) => `${countPoints(none)} not measured ${when}: ${named}.`),
    ...over(
      'points_off_base',
      off,
      (named) =>
        `${countPoints(off)} measured off the base circle, which proves nothing: ${named}. Turn on and measure again.`,
    ),
  ];
}

function countPoints(keys: readonly string[]): string {
  return keys.length === 1 ? '1 point' : `${keys.length} points`;
}
