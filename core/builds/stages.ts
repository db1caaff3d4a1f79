import { rolesOf, meansFor, type Means, type Pattern } from '../sheets/index.ts';

/** The stages of a build, in the order of the work. */
export const STAGE_KEYS = [
  'take-in',
  'open-up',
  'as-found',
  'wear',
  'head-work',
  'set',
  'prove',
  'close',
  'run-in',
] as const;

/** A stage of a build. */
export type StageKey = (typeof STAGE_KEYS)[number];

/** What a check says that something else asks about. */
type CheckSays = 'cold' | 'counted-out' | 'cover-on';

/** Something a person ticks off before the stage may be left. */
export interface StageCheck {
  readonly key: string;
  readonly text: string;
  /** what it says that something besides leaving the stage rests on */
  readonly says?: CheckSays;
  /** what is read at this stage counts only after it was ticked */
  readonly beforeReadings?: boolean;
  /** what the record answers it from: then nobody has to tick it */
  readonly answeredBy?: 'count';
  /** what of the sheet is looked at while it is ticked */
  readonly shows?: 'marks';
  /** asked of such engines only */
  readonly only?: (pattern: Pattern) => boolean;
}

/** What kind of round readings are taken in. */
export type RoundKind = 'as-found' | 'as-set' | 'proved' | 'recheck';

/** A round as it is said: what was measured in it, and when. */
export const ROUND_WORDS: Readonly<Record<RoundKind, string>> = {
  'as-found': 'As found',
  'as-set': 'As set',
  proved: 'Proved',
  recheck: 'Recheck',
};

/** Something that has to hold before a stage is left. */
export type Demand =
  | 'counted'
  | 'all-found'
  | 'all-felt'
  | 'head-tightened'
  | 'limits-known'
  | 'wear-decided'
  | 'all-set'
  | 'all-proved'
  | 'signed-off';

/** A caution of a stage: of every engine, or of those whose gaps are set so that it matters. */
export type StageCaution =
  | string
  | {
      readonly text: string | ((pattern: Pattern) => string);
      readonly where: (means: Means, pattern: Pattern) => boolean;
    };

/** What one stage is for, and what follows from being in it: its round, what has to hold, what entering it undoes. */
export interface Stage {
  readonly key: StageKey;
  readonly title: string;
  /** what is done here, in a line */
  readonly aim: string;
  readonly cautions: readonly StageCaution[];
  readonly checks: readonly StageCheck[];
  /** readings of this kind of round are taken here; null where nothing is measured */
  readonly measures: RoundKind | null;
  /** whether entering it begins such a round: once a build, or each time, because a turned engine is a new finding */
  readonly begins: 'once' | 'each-time' | 'never';
  /** rounds that entering it ends: of these kinds nothing more is measured */
  readonly ends: readonly RoundKind[];
  /** whether points are turned, fitted or left alone here */
  readonly sets: boolean;
  /** which readings are shown here: of one kind of round, or the newest finding of each point, by which it is set */
  readonly shows: RoundKind | 'finding' | null;
  /** what has to hold before it is left, besides its checks */
  readonly demands: readonly Demand[];
  /** stages whose checks are no longer true once this one is entered again */
  readonly unticks: readonly StageKey[];
  /** stages whose checks are no longer true when it is entered, where anything was changed since they were ticked */
  readonly unticksIfChanged: readonly StageKey[];
}

function mayTurnBack(_: Means, { turnsBack = true }: Pattern): boolean {
  return turnsBack;
}

function camComesOut(means: Means): boolean {
  return means.kind === 'bucket' || (means.kind === 'shim' && means.seat === 'under-bucket');
}

const isBarred = ({ readiness }: Pattern): boolean => readiness?.barred ?? false;

/** What is barred over turns by itself, and so does whoever is in it. */
const BARRED = {
  text: 'Barred over: indicator cocks open, starting air shut off and vented, nobody at the gear or in the crankcase while it turns.',
  where: (_: Means, pattern: Pattern) => isBarred(pattern),
};

const isTimedByChain = ({ camDrive }: Pattern): boolean => camDrive === 'chain' || camDrive === 'belt';

/** Where the cover's bolts hold the cams, they are loose as soon as it is off. */
const HELD_BY_COVER = {
  text: 'The cover’s bolts hold the cams on this engine: with the cover off, put them back with spacers, tightened as the maker’s manual says, before anything is turned or measured.',
  where: (_: Means, { coverHoldsCams = false }: Pattern) => coverHoldsCams,
};

/**
 * The work, stage by stage, with the cautions that belong to each and what must be ticked off before it is left.
 * Rule: the order of a rebuild as it is practised; the maker's manual governs every step.
 */
export const STAGES: readonly Stage[] = [
  {
    key: 'take-in',
    title: 'Book in',
    aim: 'Know the engine, its limits and what it is here for; make it safe.',
    cautions: [
      'Nobody works on an engine that can start. Ignition, fuel and battery are isolated first; keep hands clear of belts and fans, and chock anything that turns with the wheels.',
      {
        text: ({ readiness }) =>
          `Crankcase doors stay shut ${readiness?.doorsMinutes ? `for ${readiness.doorsMinutes} minutes` : 'as long as the maker’s manual says'} after it stopped: hot oil mist burns as soon as air comes to it.`,
        where: (_, pattern) => isBarred(pattern),
      },
    ],
    checks: [
      { key: 'cold', text: 'Engine cold', says: 'cold' },
      {
        key: 'isolated',
        text: 'Cannot start: ignition, fuel and battery isolated; wheels chocked, hands clear',
      },
      { key: 'clean', text: 'Outside cleaned around the cover' },
    ],
    measures: null,
    begins: 'never',
    ends: [],
    sets: false,
    shows: null,
    demands: [],
    unticks: ['prove', 'close'],
    unticksIfChanged: [],
  },
  {
    key: 'open-up',
    title: 'Open up',
    aim: 'What is in the way comes off, then the cover, its bolts crosswise in part turns. Of the valve train nothing is slackened yet.',
    cautions: [
      'Plug every opening while parts are loose. Never lever on a sealing face.',
      'Cleaner, fuel and coolant: open a door, wear gloves, keep children and animals away.',
      'An old gasket may hold asbestos: never scraped dry nor blown off. Wet it, bag it, and follow the local rules.',
    ],
    checks: [
      {
        key: 'marked',
        text: 'Timing marks noted as found',
      },
      {
        key: 'counted-out',
        text: 'Parts, clips and washers counted off, each kept with its place',
        says: 'counted-out',
      },
      { key: 'plugged', text: 'Every opening plugged or covered' },
      { key: 'gasket', text: 'Gasket and seals looked at: used again or replaced' },
      { key: 'lobes', text: 'Every lobe and follower looked at, as far as they show' },
    ],
    measures: null,
    begins: 'never',
    ends: [],
    sets: false,
    shows: null,
    demands: ['counted'],
    unticks: ['prove', 'close'],
    unticksIfChanged: [],
  },
  {
    key: 'as-found',
    title: 'As found',
    aim: 'Measure every gap before anything is undone, each with its follower on the base circle.',
    cautions: [
      {
        text: 'Turn the engine by hand, in its running direction only. At any resistance you did not expect: stop, go back, find out why.',
        where: mayTurnBack,
      },
      {
        text: 'Turn the engine by hand, in its running direction only, and never back: its tensioner or belt may jump. At any resistance you did not expect: stop, and find out why before it is turned at all.',
        where: (means, pattern) => !mayTurnBack(means, pattern),
      },
      BARRED,
      HELD_BY_COVER,
    ],
    checks: [],
    measures: 'as-found',
    begins: 'once',
    ends: [],
    sets: false,
    shows: 'as-found',
    demands: ['all-found'],
    unticks: ['prove', 'close'],
    unticksIfChanged: [],
  },
  {
    key: 'wear',
    title: 'Wear',
    aim: 'Stripped in its order, now that every gap is known; then lobes, followers, stems, seats and springs against their limits.',
    cautions: [
      'A compressed valve spring can let go, and clips fly: cover your eyes and use a proper compressor.',
    ],
    checks: [
      {
        key: 'stripped',
        text: 'Before anything of the train was slackened: cams and caps marked, trays numbered',
      },
      { key: 'looked', text: 'Wear measured or looked at, and written down' },
    ],
    measures: null,
    begins: 'never',
    ends: [],
    sets: false,
    shows: 'as-found',
    demands: ['wear-decided'],
    unticks: ['prove', 'close'],
    unticksIfChanged: [],
  },
  {
    key: 'head-work',
    title: 'Head and cam work',
    aim: 'Seats, faces, tips, regrinds, new parts; and what each does to the gap.',
    cautions: [
      'Cutting a seat or a face lifts the stem and takes gap away: check that a thin enough piece, or enough thread, is left.',
    ],
    checks: [
      { key: 'done', text: 'Head work finished and written down, or none needed; new parts measured' },
    ],
    measures: null,
    begins: 'never',
    ends: [],
    sets: false,
    shows: 'as-found',
    demands: ['wear-decided'],
    unticks: ['prove', 'close'],
    unticksIfChanged: [],
  },
  {
    key: 'set',
    title: 'Set',
    aim: 'Bring every point to its target, measure it again, and write down what was fitted or turned.',
    cautions: [
      {
        text: 'While a tool holds a valve down, the crank must not turn: the piston meets the valve.',
        where: (means) => means.kind === 'shim' && means.seat === 'on-bucket',
      },
      {
        text: 'A cam comes out for this: hold its chain up and taut, or mark what else drives it, and do not turn the crank.',
        where: (means, { camDrive = 'unsaid' }) => camComesOut(means) && camDrive === 'unsaid',
      },
      {
        text: 'A cam comes out for this: hold its chain up and taut, so that it neither slips a tooth nor jams below, and do not turn the crank.',
        where: (means, { camDrive }) => camComesOut(means) && camDrive === 'chain',
      },
      {
        text: 'A cam comes out for this: lock or mark its belt against both wheels before it is slackened, keep oil off it, and do not turn the crank.',
        where: (means, { camDrive }) => camComesOut(means) && camDrive === 'belt',
      },
      {
        text: 'A cam comes out for this: mark the meshing teeth of its gears, and do not turn the crank.',
        where: (means, { camDrive }) => camComesOut(means) && camDrive === 'gears',
      },
      {
        text: 'A rocker or finger comes off for this: note where it lay, and turn nothing while it is off.',
        where: (means) =>
          means.kind === 'lash-cap' || (means.kind === 'shim' && means.seat === 'under-finger'),
      },
      {
        text: 'Hold the screw or nut while it is locked: tightening moves what was set, so measure again after.',
        // what holds by its own grip has no nut to lock
        where: (means) =>
          (means.kind === 'screw' || means.kind === 'pivot-nut') && means.locking !== 'self-locking',
      },
      BARRED,
      HELD_BY_COVER,
    ],
    checks: [],
    measures: 'as-set',
    begins: 'each-time',
    ends: ['as-set'],
    sets: true,
    shows: 'finding',
    demands: ['limits-known', 'wear-decided', 'all-felt', 'head-tightened', 'all-set'],
    unticks: ['close'],
    unticksIfChanged: [],
  },
  {
    key: 'prove',
    title: 'Prove',
    aim: 'Two full turns by hand, feeling for resistance; marks again; then every gap again.',
    cautions: [
      {
        text: 'At any resistance you did not expect: stop, go back, find out why.',
        where: mayTurnBack,
      },
      {
        text: 'At any resistance you did not expect: stop, and find out why. This engine is never turned back.',
        where: (means, pattern) => !mayTurnBack(means, pattern),
      },
      BARRED,
      HELD_BY_COVER,
    ],
    checks: [
      {
        key: 'tensioner',
        text: 'Chain or belt counted or held against its marks; tensioner released, its locking pin out',
        only: isTimedByChain,
      },
      { key: 'two-turns', text: 'Two full turns by hand, nothing felt', beforeReadings: true },
      { key: 'marks', text: 'Timing marks checked again', shows: 'marks' },
    ],
    measures: 'proved',
    begins: 'each-time',
    ends: ['as-found', 'as-set', 'proved'],
    sets: false,
    shows: 'proved',
    demands: ['limits-known', 'wear-decided', 'all-proved'],
    unticks: ['close'],
    unticksIfChanged: ['prove'],
  },
  {
    key: 'close',
    title: 'Close and sign off',
    aim: 'Everything counted back in, cover on, first start; then a lead signs.',
    cautions: [
      'First start: in outside air, an extinguisher within reach, and stop at any knock.',
      'Turn it over without fuel until there is oil pressure. A diesel that runs away is stopped by its air alone: have what shuts it in your hand.',
      'Where the engine is under certification (passengers, aircraft, marine survey, emissions, mines), those licensed to sign for it do so under local rules. This record does not replace that.',
    ],
    checks: [
      {
        key: 'counted-in',
        text: 'Parts, clips and washers counted back; nothing left over',
        answeredBy: 'count',
      },
      { key: 'cover', text: 'Cover on, bolts in their own places and to torque', says: 'cover-on' },
      { key: 'primed', text: 'Oil and coolant in; turned over without fuel until there is oil pressure' },
      {
        key: 'turning-gear',
        text: 'Turning gear out and locked out, indicator cocks shut, starting air on again',
        only: isBarred,
      },
      {
        key: 'air-shut-off',
        text: 'What shuts off its air in hand, and tried: an engine without a spark that runs away is stopped by nothing else',
        only: ({ readiness }) => readiness?.noSpark ?? false,
      },
      {
        key: 'first-start',
        text: 'First start: oil pressure up, no noise, no leak, idle steady',
      },
    ],
    measures: null,
    begins: 'never',
    ends: [],
    sets: false,
    shows: 'proved',
    demands: ['signed-off'],
    unticks: [],
    unticksIfChanged: [],
  },
  {
    key: 'run-in',
    title: 'Run in and recheck',
    aim: 'Recheck when the plan says, compare, and plan the next recheck.',
    cautions: ['Recheck with the engine as the sheet says, cold or hot, and unable to start.'],
    checks: [],
    measures: 'recheck',
    begins: 'never',
    ends: [],
    sets: false,
    shows: 'recheck',
    demands: [],
    unticks: [],
    unticksIfChanged: [],
  },
];

/**
 * Says whether the cover comes off or goes on at a stage: what the shop knows of it stands there.
 *
 * @example handlesCover('wear') // false
 */
export const handlesCover = (key: StageKey): boolean =>
  stageOf(key).checks.some(({ says }) => says === 'counted-out' || says === 'cover-on');

/**
 * Finds a stage by its key.
 *
 * @example stageOf('prove').title // 'Prove'
 */
export function stageOf(key: StageKey): Stage {
  return STAGES[STAGE_KEYS.indexOf(key)]!;
}

const keyWhere = (is: (stage: Stage) => boolean): StageKey => STAGES.find(is)!.key;

/** The stage in which points are set. */
export const SETTING = keyWhere(({ sets }) => sets);
/** The stage in which every point is proved. */
export const PROVING = keyWhere(({ measures }) => measures === 'proved');
/** The stage in which a build is closed, and signed off. */
export const CLOSING = keyWhere(({ demands }) => demands.includes('signed-off'));
/** The stage of a build that is signed off: its engine runs, and is looked at again. */
export const RUNNING = keyWhere(({ measures }) => measures === 'recheck');

/**
 * Finds the check that says something: its stage, and its key there.
 *
 * @example checkSaying('cover-on') // { stage: 'close', check: 'cover' }
 */
export function checkSaying(what: CheckSays): { readonly stage: StageKey; readonly check: string } {
  const [found] = STAGES.flatMap(({ key, checks }) =>
    checks.filter(({ says }) => says === what).map((check) => ({ stage: key, check: check.key })),
  );
  return found!;
}

/**
 * Finds the stage in which a kind of round is measured.
 *
 * @example stageMeasuring('proved').key // 'prove'
 */
export function stageMeasuring(kind: RoundKind): Stage {
  return STAGES.find(({ measures }) => measures === kind)!;
}

/**
 * Lists the cautions that matter at a stage for an engine, by how its gaps are set.
 *
 * @example cautionsAt('set', pattern) // no chain where nothing but a screw is turned
 */
export function cautionsAt(key: StageKey, pattern: Pattern): readonly string[] {
  const means = rolesOf(pattern).map((role) => meansFor(pattern, role));
  return stageOf(key).cautions.flatMap((caution) => {
    if (typeof caution === 'string') return [caution];
    if (!means.some((each) => caution.where(each, pattern))) return [];
    return [typeof caution.text === 'string' ? caution.text : caution.text(pattern)];
  });
}
