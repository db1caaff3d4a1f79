import type { RunInLeft } from './heatCycles.ts';
import type { Verdict } from '../measuring/index.ts';
import { CLOSING, RUNNING, STAGE_KEYS, stageOf, type Demand, type StageKey } from './stages.ts';

/** What stands in a build, as far as leaving a stage goes. */
export interface BuildStanding {
  readonly stage: StageKey;
  /** `stage:check` of everything ticked */
  readonly ticked: ReadonlySet<string>;
  /** every lash point of the build's pattern */
  readonly points: readonly string[];
  /** the verdict of each point's reading in the as-found round, of those that prove anything */
  readonly asFound: ReadonlyMap<string, Verdict>;
  /** the verdict of each point's newest finding, as found or at proving: that is what it is set by */
  readonly toSetBy: ReadonlyMap<string, Verdict>;
  /** the verdict of what proves each point, of those that anything proves */
  readonly proved: ReadonlyMap<string, Verdict>;
  /** points that a lead lets stand as they are */
  readonly accepted: ReadonlySet<string>;
  /** points whose reading in the round of this stage was taken off the base circle */
  readonly offBase: ReadonlySet<string>;
  /** points set, or left alone on purpose, since that finding */
  readonly set: ReadonlySet<string>;
  /** points at which a tool holds the valve down */
  readonly heldDown: readonly string[];
  /** points that nothing is in */
  readonly bare: readonly string[];
  /** points that were set before their bridge was balanced */
  readonly unbalanced: readonly string[];
  /** steps of assembly that may not be skipped and are not done, where it was begun */
  readonly assemblyLeft: readonly string[];
  /** passes of the cam caps, in words, that are not done since a cam was out */
  readonly capsLoose: readonly string[];
  /** points with nothing in for which the crank is held */
  readonly bareHeld: readonly string[];
  /** "counted out" is ticked over no part, and nobody wrote down why */
  readonly nothingCounted: boolean;
  /** parts that are broken or at replace with nobody's decision, in words */
  readonly undecided: readonly string[];
  /** parts fitted new whose figures are not written down, in words */
  readonly newParts: readonly string[];
  /** parts that did not come back as they were counted out, in words */
  readonly partsOff: readonly string[];
  /** a lead wrote down why */
  readonly partsExplained: boolean;
  /** passes of tightening that were begun and not finished, in words */
  readonly passesOpen: readonly string[];
  /** heat cycles, and heads to be torqued again, that the sheet asks for before it is signed off */
  readonly runIn: RunInLeft;
  readonly signedOff: boolean;
}

/** Why a stage may not be left: a stable code, a sentence, and the points it is about. */
export interface Obstacle {
  readonly code:
    | 'checks_open'
    | 'tool_in'
    | 'points_unmeasured'
    | 'points_off_base'
    | 'points_undecided'
    | 'points_unset'
    | 'points_bare'
    | 'bridges_open'
    | 'assembly_open'
    | 'caps_open'
    | 'bare_held'
    | 'nothing_counted'
    | 'wear_undecided'
    | 'new_parts'
    | 'parts_off'
    | 'passes_open'
    | 'heat_cycles_open'
    | 'retorque_open'
    | 'points_out'
    | 'not_signed_off';
  readonly text: string;
  readonly points: readonly string[];
}

/** Verdicts that leave it open whether a point is in its band. */
export function isUndecided(verdict: Verdict): boolean {
  return verdict.startsWith('undecided') || verdict === 'conflict';
}

/**
 * Lists what still stands between a build and its next stage.
 *
 * @returns an empty list when the stage may be left
 * @example obstaclesTo(standing).map((obstacle) => obstacle.text)
 */
export function obstaclesTo(standing: BuildStanding): Obstacle[] {
  const stage = stageOf(standing.stage);
  const open = stage.checks.filter(({ key }) => !standing.ticked.has(`${stage.key}:${key}`));
  const obstacles: Obstacle[] = [];
  if (open.length > 0)
    obstacles.push({
      code: 'checks_open',
      text: `Tick off first: ${open.map(({ text }) => text.toLowerCase()).join('; ')}.`,
      points: [],
    });
  return [
    ...toolsLeftIn(standing),
    ...obstacles,
    ...stage.demands.flatMap((demand) => UNMET[demand](standing)),
  ];
}

/**
 * Says what stands against turning the crank, or leaving a stage in any direction: a tool that holds a valve down.
 *
 * Rule: the piston meets a valve that is held open.
 *
 * @example toolsLeftIn({ heldDown: ['3E'] })[0]?.code // 'tool_in'
 */
export function toolsLeftIn({
  heldDown,
  bareHeld = [],
}: Pick<BuildStanding, 'heldDown'> & Partial<Pick<BuildStanding, 'bareHeld'>>): Obstacle[] {
  return [...tools(heldDown), ...held(bareHeld)];
}

/** Points with nothing in: a lobe turned onto them can push the collets out. */
function held(points: readonly string[]): Obstacle[] {
  if (points.length === 0) return [];
  return [
    {
      code: 'bare_held',
      text: `Nothing is in at ${points.join(', ')}: the crank stays where it is until the old piece or a spare is back, or, under a bucket and where the sheet says the maker allows it, the caution is accepted for this build.`,
      points: [...points],
    },
  ];
}

function tools(heldDown: readonly string[]): Obstacle[] {
  if (heldDown.length === 0) return [];
  const valves = heldDown.length === 1 ? 'the valve' : 'valves';
  return [
    {
      code: 'tool_in',
      text: `A tool holds ${valves} down at ${heldDown.join(', ')}: take it out, and say so, before the crank is turned.`,
      points: [...heldDown],
    },
  ];
}

/** What is missing of each thing that has to hold. */
const UNMET: Readonly<Record<Demand, (standing: BuildStanding) => Obstacle[]>> = {
  counted: ({ nothingCounted }) =>
    nothingCounted
      ? [
          {
            code: 'nothing_counted',
            text: 'Counted out is ticked, and no part is counted: count them, or write down here why there is nothing to count.',
            points: [],
          },
        ]
      : [],
  'wear-decided': undecidedWear,
  'all-found': ({ points, asFound, offBase }) => unmeasured(points, asFound, offBase, 'as found'),
  'all-set': (standing) => [
    ...leftBare(standing),
    ...leftUnbalanced(standing),
    ...halfTogether(standing),
    ...loose(standing),
    ...unset(standing),
  ],
  'all-proved': unproved,
  'signed-off': ({ signedOff }) =>
    signedOff ? [] : [{ code: 'not_signed_off', text: 'A lead signs the build off first.', points: [] }],
};

/**
 * Lists what stands against signing off: every point proved and in spec, the stage's own checks, parts that are not back, and
 * what is half tightened.
 */
export function obstaclesToSignOff(standing: BuildStanding): Obstacle[] {
  return [
    ...obstaclesTo({ ...standing, stage: CLOSING, signedOff: true }),
    ...notClosed(standing),
    ...halfTogether(standing),
    ...loose(standing),
    ...undecidedWear(standing),
    ...withoutFigures(standing),
    ...unproved(standing),
  ];
}

/** What keeps an engine from being closed: parts that are not back, and what is half tightened. */
function notClosed({ partsOff, partsExplained, passesOpen, runIn }: BuildStanding): Obstacle[] {
  return [
    ...(partsOff.length > 0 && !partsExplained
      ? [
          {
            code: 'parts_off' as const,
            text: `The count does not balance: ${partsOff.join(', ')}. Find it, or have a lead write down why.`,
            points: [],
          },
        ]
      : []),
    ...(passesOpen.length > 0
      ? [
          {
            code: 'passes_open' as const,
            text: `Begun to be tightened and not finished: ${passesOpen.join(', ')}.`,
            points: [],
          },
        ]
      : []),
    ...(runIn.cycles > 0
      ? [
          {
            code: 'heat_cycles_open' as const,
            text: `Run hot and left to go cold ${runIn.cycles === 1 ? 'once more' : `${runIn.cycles} times more`}, as the sheet says.`,
            points: [],
          },
        ]
      : []),
    ...(runIn.heads.length > 0
      ? [
          {
            code: 'retorque_open' as const,
            text: `The sheet has head ${runIn.heads.join(' and ')} torqued again after its heat cycles, cold: go back to Set, tick it there, and prove every gap again, since it moves them.`,
            points: [],
          },
        ]
      : []),
  ];
}

function leftBare({ bare }: BuildStanding): Obstacle[] {
  if (bare.length === 0) return [];
  return [
    {
      code: 'points_bare',
      text: `Nothing is in at ${bare.join(', ')}: fit what was worked out, or what was in.`,
      points: [...bare],
    },
  ];
}

function halfTogether({ assemblyLeft }: BuildStanding): Obstacle[] {
  if (assemblyLeft.length === 0) return [];
  return [
    {
      code: 'assembly_open',
      text: `Put together and not looked at yet: ${assemblyLeft.join('; ')}.`,
      points: [],
    },
  ];
}

/** A cam was out, and its caps are not tightened: nothing is turned like that. */
function loose({ capsLoose }: BuildStanding): Obstacle[] {
  if (capsLoose.length === 0) return [];
  return [
    {
      code: 'caps_open',
      text: `A cam was out, and its caps are not tightened since: ${capsLoose.join(', ')}.`,
      points: [],
    },
  ];
}

function undecidedWear({ undecided }: BuildStanding): Obstacle[] {
  if (undecided.length === 0) return [];
  return [
    {
      code: 'wear_undecided',
      text: `Broken or at replace, and nobody says what becomes of it: ${undecided.join('; ')}. Decide it at Wear.`,
      points: [],
    },
  ];
}

function withoutFigures({ newParts }: BuildStanding): Obstacle[] {
  if (newParts.length === 0) return [];
  return [
    {
      code: 'new_parts',
      text: `Fitted new, and not measured: ${newParts.join(', ')}. Their figures are written down at Wear first.`,
      points: [],
    },
  ];
}

function leftUnbalanced({ unbalanced }: BuildStanding): Obstacle[] {
  if (unbalanced.length === 0) return [];
  return [
    {
      code: 'bridges_open',
      text: `Set over a bridge that nobody says was balanced first: ${unbalanced.join(', ')}.`,
      points: [...unbalanced],
    },
  ];
}

function unset({ points, toSetBy, set }: BuildStanding): Obstacle[] {
  const left = points.filter((key) => toSetBy.has(key) && toSetBy.get(key) !== 'in-spec' && !set.has(key));
  if (left.length === 0) return [];
  return [
    {
      code: 'points_unset',
      text: `${countPoints(left)} found out of spec or undecided ${left.length === 1 ? 'has' : 'have'} no setting recorded: ${left.join(', ')}.`,
      points: left,
    },
  ];
}

function unproved({ points, proved, accepted, offBase }: BuildStanding): Obstacle[] {
  const measured = points.filter((key) => proved.has(key) && !accepted.has(key));
  const undecided = measured.filter((key) => isUndecided(proved.get(key)!));
  const out = measured.filter((key) => ['tight', 'loose'].includes(proved.get(key)!));
  return [
    ...unmeasured(points, proved, offBase, 'since it was last set'),
    ...(undecided.length > 0
      ? [
          {
            code: 'points_undecided' as const,
            text: `${countPoints(undecided)} still undecided: ${undecided.join(', ')}. Try another blade.`,
            points: undecided,
          },
        ]
      : []),
    ...(out.length > 0
      ? [
          {
            code: 'points_out' as const,
            text: `${countPoints(out)} out of spec: ${out.join(', ')}. Go back to Set.`,
            points: out,
          },
        ]
      : []),
  ];
}

function unmeasured(
  points: readonly string[],
  verdicts: ReadonlyMap<string, Verdict>,
  offBase: ReadonlySet<string>,
  when: string,
): Obstacle[] {
  const left = points.filter((key) => !verdicts.has(key));
  const off = left.filter((key) => offBase.has(key));
  const none = left.filter((key) => !offBase.has(key));
  const obstacles: Obstacle[] = [];
  if (none.length > 0)
    obstacles.push({
      code: 'points_unmeasured',
      text: `${countPoints(none)} not measured ${when}: ${none.join(', ')}.`,
      points: none,
    });
  if (off.length > 0)
    obstacles.push({
      code: 'points_off_base',
      text: `${countPoints(off)} measured off the base circle, which proves nothing: ${off.join(', ')}. Turn on and measure again.`,
      points: off,
    });
  return obstacles;
}

function countPoints(keys: readonly string[]): string {
  return keys.length === 1 ? '1 point' : `${keys.length} points`;
}

/**
 * Says whether a build may be moved from one stage to another: one on when nothing stands against it, or back to any
 * earlier stage until it is signed off.
 *
 * @example mayMove('as-found', 'set') // false: two stages would be skipped
 */
export function mayMove(from: StageKey, to: StageKey): boolean {
  return goesOn(from, to) || (STAGE_KEYS.indexOf(to) < STAGE_KEYS.indexOf(from) && from !== RUNNING);
}

/**
 * Says whether a move is one stage on, which needs the stage to be finished.
 *
 * @example goesOn('set', 'prove') // true
 */
export function goesOn(from: StageKey, to: StageKey): boolean {
  return STAGE_KEYS.indexOf(to) - STAGE_KEYS.indexOf(from) === 1;
}
