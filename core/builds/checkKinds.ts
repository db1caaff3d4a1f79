import { passesOf, type AssemblyStep, type Fastening } from '../assembly/index.ts';
import { checkKey, type CheckKind } from '../checks/index.ts';
import { lashPoints, rolesOf, type Pattern } from '../sheets/index.ts';
import { balancedPoints } from './bridges.ts';
import { disturbances } from './disturbed.ts';
import type { RunInSays } from './buildState.ts';
import type { BuildStatus } from './buildStatus.ts';
import { heatCyclesOf } from './heatCycles.ts';
import { heldDownToSet, mayBeBare } from './holds.ts';
import {
  camsOutOfPosition,
  countOff,
  cyclesOpen,
  halfTight,
  halfTogether,
  leftUnbalanced,
  loose,
  retorqueOpen,
  type Obstacle,
} from './obstacles.ts';
import type { Stage } from './stages.ts';
import { severalHeads } from './unopened.ts';

/** An engine as far as its checks go: its pattern, and what its sheet says of putting it together. */
export interface CheckedEngine {
  readonly pattern: Pattern;
  readonly torques: readonly Fastening[];
  readonly assembly: readonly AssemblyStep[];
  readonly runIn: RunInSays;
}

/** What the checks of a kind stand against, as long as they are as they are. */
export interface Holds {
  /** going on where points are set */
  readonly setting?: (status: BuildStatus) => readonly Obstacle[];
  /** signing the build off */
  readonly signing?: (status: BuildStatus) => readonly Obstacle[];
}

/** The rules of every check of one kind. */
export interface CheckRules {
  /** whether it is ticked at a stage */
  readonly tickedAt: (stage: Stage) => boolean;
  /** the checks of this kind that an engine has, by their keys */
  readonly of: (engine: CheckedEngine) => readonly string[];
  /** what it is, in a line */
  readonly words: (subject: string) => string;
  /** what undoes it: that its stage is entered again, or nothing but what it is a check of itself */
  readonly undoneBy: 'its-stage' | 'nothing';
  readonly holds?: Holds;
  /** only a lead ticks it, and this is said to others */
  readonly byLead?: string;
}

const setting = ({ sets }: Stage) => sets;
const closing = ({ demands }: Stage) => demands.includes('signed-off');

/** Something slackened or taken out where points are set. */
const slackened = (kind: CheckKind, words: CheckRules['words']): CheckRules => ({
  tickedAt: setting,
  of: ({ pattern }) => disturbances(pattern).flatMap((each) => (each.kind === kind ? [each.key] : [])),
  words,
  undoneBy: 'its-stage',
});

/** Of two cams above a head each is named. */
function camInWords(subject: string): string {
  const [head, cam] = subject.split('-');
  if (cam === undefined) return `Cam of head ${head} taken out`;
  return `${cam === 'intake' ? 'Intake' : 'Exhaust'} cam of head ${head} taken out`;
}

/**
 * Every kind of check that is no fixed one of a stage: where it is ticked, which an engine has, its words, what undoes it, and what it holds. Whoever
 * asks about a check asks here.
 */
export const CHECK_KINDS: Readonly<Record<CheckKind, CheckRules>> = {
  tool: {
    tickedAt: setting,
    of: ({ pattern }) => heldDownToSet(pattern).map((point) => checkKey('tool', point)),
    words: (point) => `Tool in at ${point}, holding the valve down`,
    undoneBy: 'its-stage',
  },
  bridge: {
    tickedAt: setting,
    of: ({ pattern }) => balancedPoints(pattern).map((point) => checkKey('bridge', point)),
    words: (point) =>
      `Bridge of ${point} balanced first, its rocker clear, and locked without twisting its guide`,
    holds: { setting: leftUnbalanced },
    undoneBy: 'its-stage',
  },
  looked: {
    tickedAt: setting,
    of: ({ pattern }) => lashPoints(pattern).map(({ key }) => checkKey('looked', key)),
    words: (point) => `${point} looked at before it was set: sound`,
    // what was seen was seen
    undoneBy: 'nothing',
  },
  unopened: {
    tickedAt: setting,
    of: ({ pattern }) => severalHeads(pattern).map(({ head }) => checkKey('unopened', head)),
    words: (head) => `Head ${head} not opened yet: another one is finished first`,
    undoneBy: 'nothing',
  },
  'turned-bare': {
    tickedAt: setting,
    of: ({ pattern }) =>
      rolesOf(pattern).some((role) => mayBeBare(pattern, role)) ? [checkKey('turned-bare')] : [],
    words: () => 'Turned with nothing in, as the maker allows: accepted for this build',
    undoneBy: 'its-stage',
  },
  step: {
    tickedAt: setting,
    of: ({ assembly }) => assembly.map((_, index) => checkKey('step', index)),
    words: () => 'A step of assembly',
    holds: { setting: halfTogether, signing: halfTogether },
    undoneBy: 'its-stage',
  },
  pass: {
    tickedAt: (stage) => setting(stage) || closing(stage),
    of: ({ torques }) => passesOf(torques).map(({ key }) => key),
    words: () => 'A pass of tightening',
    holds: { setting: loose, signing: (status) => [...halfTight(status), ...loose(status)] },
    undoneBy: 'its-stage',
  },
  rockers: slackened('rockers', (head) => `Rockers of head ${head} slackened or taken off`),
  'cams-out-position': {
    tickedAt: setting,
    of: ({ pattern }) => (pattern.camsOut ? [checkKey('cams-out-position')] : []),
    words: () => 'The crank where cams come out, locked as the sheet says, before a cap is slackened',
    holds: { setting: camsOutOfPosition },
    undoneBy: 'its-stage',
  },
  cam: slackened('cam', camInWords),
  cover: slackened('cover', (head) => `Cover of head ${head} off again, whose bolts hold the cams`),
  'new-cam': slackened('new-cam', (head) => `Another cam, followers or rockers in head ${head}`),
  head: {
    ...slackened('head', (head) => `Head ${head} off, or tightened again`),
    // it may be tightened again once the engine runs
    tickedAt: (stage) => setting(stage) || stage.measures === 'recheck',
    holds: { signing: retorqueOpen },
  },
  'heat-cycle': {
    tickedAt: closing,
    of: ({ runIn }) => heatCyclesOf(runIn),
    words: () => 'Run hot and left to go cold',
    holds: { signing: cyclesOpen },
    // what ran hot ran hot, whatever is opened again after it
    undoneBy: 'nothing',
  },
  'ledger-explained': {
    tickedAt: closing,
    of: () => [checkKey('ledger-explained')],
    words: () => 'The count explained by a lead',
    holds: { signing: countOff },
    undoneBy: 'its-stage',
    byLead: 'Only a lead explains a count that does not balance.',
  },
  accepted: {
    tickedAt: ({ measures }) => measures === 'proved',
    of: ({ pattern }) => lashPoints(pattern).map(({ key }) => checkKey('accepted', key)),
    words: (point) => `${point} left as it is`,
    // it falls by itself when the point is set or measured again
    undoneBy: 'nothing',
    byLead: 'Only a lead may let a point stand as it is.',
  },
};
