import type { Pattern } from '../sheets/index.ts';
import { STAGE_KEYS, type Stage, type StageKey } from './stages.ts';

/** How an engine is measured, and what was done to it in a build, as far as what is asked follows from it. */
export interface Circumstances {
  /** a point was set, or something slackened that bears on one */
  readonly touched: boolean;
  /** a cam came out of its caps */
  readonly camOut: boolean;
  /** the sheet's figures hold for an engine that is hot */
  readonly hot: boolean;
  /** the engine, as far as some checks are asked of such engines only; every one may be where it is left out */
  readonly pattern?: Pattern;
}

/** What is done to an engine, as a build of it is opened, and what follows: its stages, and what is not asked there. */
interface JobRow {
  readonly key: string;
  readonly title: string;
  /** what it is, in a line */
  readonly about: string;
  /** in the order of the work */
  readonly stages: readonly StageKey[];
  /** the stage in which every gap is measured as it was found; null where there is nothing to find */
  readonly findsAt: StageKey | null;
  /** what its stages are called and for, where that is not what they are in a rebuild */
  readonly words: Partial<Readonly<Record<StageKey, Pick<Stage, 'title' | 'aim'>>>>;
  /** the head is tightened again once every gap was felt, where the sheet asks for it after the first hours */
  readonly tightensHead: boolean;
  /** the head is opened: not only its cover comes off */
  readonly strips: boolean;
  /** checks of its stages that are not asked, as `stage:check` */
  readonly without: readonly string[];
  /** checks that are asked only once something happened */
  readonly onlyOnce: Readonly<Record<string, 'touched' | 'camOut'>>;
  /** checks that say something else than in a rebuild */
  readonly says: Readonly<Record<string, string>>;
  /** the same, where the sheet has the engine measured hot */
  readonly saysHot: Readonly<Record<string, string>>;
  /** whether somebody has to say what the engine is here for */
  readonly complaint: 'asked' | 'optional';
  /** whether compression and leak-down are asked for, or only where there is a complaint */
  readonly pressures: 'asked' | 'with-a-complaint';
  /** nothing of the train is opened to look: what was found in its band, and left alone, is proved by that */
  readonly foundProves: boolean;
  /** the engine is run in already: it is looked at by the last step of its plan from the first recheck on */
  readonly isRunIn: boolean;
  /** what it is opened by: whoever books an engine in, a recheck that is to be set again, or word of when an engine in service was checked */
  readonly opened: 'by-hand' | 'after-recheck' | 'last-checked';
}

/** What is looked at with nothing of the train opened. */
const CHECK = {
  stages: ['take-in', 'open-up', 'set', 'prove', 'close', 'run-in'],
  findsAt: 'set',
  strips: false,
  tightensHead: false,
  words: {
    'open-up': { title: 'Cover off', aim: 'Only the cover comes off: nothing of the train is slackened.' },
    set: {
      title: 'Check and set',
      aim: 'At each stop feel every point. What is out is set there and then, the tool off, and felt again.',
    },
  },
  without: [
    ...['take-in:clean', 'open-up:marked', 'open-up:counted-out', 'open-up:plugged', 'open-up:lobes'],
    ...['close:counted-in', 'close:primed'],
  ],
  onlyOnce: { 'prove:two-turns': 'touched', 'prove:marks': 'camOut', 'prove:tensioner': 'camOut' },
  says: {
    'close:cover':
      'Everything back: clips, tools, rags and pieces; the spanner off the crank; cover on, its bolts to torque',
    'close:first-start': 'Started: no knock, no leak',
  },
  saysHot: {
    'take-in:cold':
      'Run until it is as warm as the sheet says; its temperature taken, and the clock running from when it was shut down',
  },
  complaint: 'optional',
  pressures: 'with-a-complaint',
  foundProves: true,
  isRunIn: false,
  opened: 'by-hand',
} as const;

/** Every check of its stages is asked, as it stands there. */
const ALL_ASKED = {
  strips: true,
  tightensHead: false,
  words: {},
  without: [],
  onlyOnce: { 'prove:tensioner': 'camOut' },
  says: {},
  saysHot: {},
} as const;

const ROWS = [
  {
    key: 'rebuild',
    title: 'Rebuild',
    about: 'The head is opened: found, worn parts measured, set, proved.',
    stages: STAGE_KEYS,
    findsAt: 'as-found',
    ...ALL_ASKED,
    saysHot: CHECK.saysHot,
    complaint: 'asked',
    pressures: 'asked',
    foundProves: false,
    isRunIn: false,
    opened: 'by-hand',
  },
  {
    key: 'valve-check',
    title: 'Valve check',
    about: 'Cover off, every gap felt, what is out is set, proved, closed.',
    ...CHECK,
  },
  {
    key: 'first-check',
    title: 'First check after run-in',
    about:
      'The first look after a rebuild: every gap felt; where the sheet has the head tightened again, then every gap read and set.',
    ...CHECK,
    tightensHead: true,
  },
  {
    key: 'fresh-head',
    title: 'Newly built head',
    about: 'It came apart, or with a new head: there is nothing to find. New parts measured, set, proved.',
    stages: ['take-in', 'wear', 'set', 'prove', 'close', 'run-in'],
    findsAt: null,
    ...ALL_ASKED,
    without: ['wear:stripped'],
    says: {
      'wear:looked':
        'New parts measured and written down; collets seated, each stem tapped with a soft mallet, eyes covered',
    },
    words: {
      wear: {
        title: 'New parts',
        aim: 'What is new is measured before it is set by: lobes, followers, stems, seats and springs.',
      },
    },
    complaint: 'asked',
    pressures: 'asked',
    foundProves: false,
    isRunIn: false,
    opened: 'by-hand',
  },
  {
    key: 'set-again',
    title: 'Set again',
    about: 'After a recheck, whether it held or not: what it found is set, proved, closed.',
    stages: ['set', 'prove', 'close', 'run-in'],
    findsAt: null,
    ...ALL_ASKED,
    without: ['close:primed'],
    complaint: 'asked',
    pressures: 'asked',
    foundProves: false,
    isRunIn: false,
    opened: 'after-recheck',
  },
  {
    key: 'in-service',
    title: 'In service',
    about: 'Checked before it was in this record, or elsewhere: only its next recheck is planned.',
    stages: ['run-in'],
    findsAt: null,
    ...ALL_ASKED,
    onlyOnce: {},
    words: {
      'run-in': {
        title: 'In service',
        aim: 'Recheck when the plan says, compare, and plan the next recheck.',
      },
    },
    complaint: 'optional',
    pressures: 'with-a-complaint',
    foundProves: false,
    isRunIn: true,
    opened: 'last-checked',
  },
] as const satisfies readonly JobRow[];

/** A job by its key. */
export type JobKey = (typeof ROWS)[number]['key'];

/** What is done to an engine. */
export interface Job extends JobRow {
  readonly key: JobKey;
}

/** Every job there is, the longest first: nothing else knows one of them by its name. */
export const JOBS: readonly Job[] = ROWS;

/** The keys of every job. */
export const JOB_KEYS = ROWS.map(({ key }) => key) as [JobKey, ...JobKey[]];

/**
 * Finds a job by its key.
 *
 * @example jobOf('valve-check').title // 'Valve check'
 */
export const jobOf = (key: JobKey): Job => JOBS.find((job) => job.key === key)!;

/** The job of a build that is opened by hand where nobody says which: it leaves nothing out. */
export const WHOLE_JOB: JobKey = JOBS.find(({ stages }) => stages.length === STAGE_KEYS.length)!.key;

/** The job of what is opened for an engine in service, of which somebody says when it was last checked. */
export const IN_SERVICE: JobKey = JOBS.find(({ opened }) => opened === 'last-checked')!.key;

/** The job of a build that is opened for what a recheck found. */
export const AFTER_RECHECK: JobKey = JOBS.find(({ opened }) => opened === 'after-recheck')!.key;

/**
 * Says which job a build is opened as: the one that is named, else the whole of it, or what sets a recheck's finding again.
 *
 * @example jobAsked({}) // 'rebuild'
 */
export const jobAsked = ({
  job,
  recheckId,
}: {
  readonly job?: JobKey | undefined;
  readonly recheckId?: string | undefined;
}): JobKey => job ?? (recheckId === undefined ? WHOLE_JOB : AFTER_RECHECK);

/**
 * Lists the jobs that one may become when something is found: those that have every stage of it and more. What was measured is kept.
 *
 * Rule: a job becomes a larger one, never a smaller one.
 *
 * @example largerJobs('valve-check').map(({ key }) => key) // ['rebuild']
 */
export function largerJobs(job: JobKey): readonly Job[] {
  const { stages, opened } = jobOf(job);
  // what was checked elsewhere has nothing that a larger job could keep: a build of its own is opened
  if (opened === 'last-checked') return [];
  return JOBS.filter(
    (other) =>
      other.opened === 'by-hand' &&
      other.stages.length > stages.length &&
      stages.every((stage) => other.stages.includes(stage)),
  );
}

/**
 * Says whether compression and leak-down are asked for before an engine is opened.
 *
 * Rule: a check of an engine that nobody complains of needs neither.
 *
 * @example asksPressures({ job: 'valve-check', complaint: '' }) // false
 */
export const asksPressures = ({
  job,
  complaint,
}: {
  readonly job: JobKey;
  readonly complaint: string;
}): boolean => jobOf(job).pressures === 'asked' || complaint !== '';

/**
 * Says what a build is for: its job, and what somebody said the engine is here for.
 *
 * @example buildInWords({ job: 'valve-check', complaint: 'ticks when cold' }) // 'Valve check: ticks when cold'
 */
export const buildInWords = ({
  job,
  complaint,
}: {
  readonly job: JobKey;
  readonly complaint: string;
}): string => [jobOf(job).title, complaint].filter(Boolean).join(': ');
