import { STAGE_KEYS, stageOf, type StageCheck, type StageKey } from './stages.ts';

/** What is done to an engine, as a build of it is opened, and what follows: its stages, and what is not asked there. */
interface JobRow {
  readonly key: string;
  readonly title: string;
  /** what it is, in a line */
  readonly about: string;
  /** in the order of the work */
  readonly stages: readonly StageKey[];
  /** checks of its stages that are not asked, as `stage:check` */
  readonly without: readonly string[];
  /** whether somebody has to say what the engine is here for */
  readonly complaint: 'asked' | 'optional';
  /** whether compression and leak-down are asked for, or only where there is a complaint */
  readonly pressures: 'asked' | 'with-a-complaint';
  /** nothing of the train is opened to look: what was found in its band, and left alone, is proved by that */
  readonly foundProves: boolean;
  /** by whom it is opened: whoever books an engine in, or after a recheck that is to be set again */
  readonly opened: 'by-hand' | 'after-recheck';
}

/** What is looked at with nothing of the train opened. */
const CHECK = {
  stages: ['take-in', 'open-up', 'as-found', 'set', 'prove', 'close', 'run-in'],
  without: ['take-in:clean', 'open-up:counted-out', 'open-up:lobes'],
  complaint: 'optional',
  pressures: 'with-a-complaint',
  foundProves: true,
  opened: 'by-hand',
} as const;

const ROWS = [
  {
    key: 'rebuild',
    title: 'Rebuild',
    about: 'The head is opened: found, worn parts measured, set, proved.',
    stages: STAGE_KEYS,
    without: [],
    complaint: 'asked',
    pressures: 'asked',
    foundProves: false,
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
    about: 'The first look after a rebuild: every gap felt, what is out is set, proved, closed.',
    ...CHECK,
  },
  {
    key: 'fresh-head',
    title: 'Newly built head',
    about: 'It came apart, or with a new head: there is nothing to find. New parts measured, set, proved.',
    stages: ['take-in', 'wear', 'set', 'prove', 'close', 'run-in'],
    without: [],
    complaint: 'asked',
    pressures: 'asked',
    foundProves: false,
    opened: 'by-hand',
  },
  {
    key: 'set-again',
    title: 'Set again',
    about: 'After a recheck, whether it held or not: what it found is set, proved, closed.',
    stages: ['set', 'prove', 'close', 'run-in'],
    without: [],
    complaint: 'asked',
    pressures: 'asked',
    foundProves: false,
    opened: 'after-recheck',
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
 * Gives the stage that a job begins at.
 *
 * @example firstStage('set-again') // 'set'
 */
export const firstStage = (job: JobKey): StageKey => jobOf(job).stages[0]!;

/**
 * Gives the stage that comes after another in a job; undefined at its last, and at one that it has not.
 *
 * @example nextStage('valve-check', 'as-found') // 'set'
 */
export function nextStage(job: JobKey, stage: StageKey): StageKey | undefined {
  const { stages } = jobOf(job);
  const at = stages.indexOf(stage);
  return at < 0 ? undefined : stages[at + 1];
}

/**
 * Lists the stages of a job that come before one of them, the first one first.
 *
 * @example stagesBefore('valve-check', 'set') // ['take-in', 'open-up', 'as-found']
 */
export function stagesBefore(job: JobKey, stage: StageKey): readonly StageKey[] {
  const { stages } = jobOf(job);
  return stages.slice(0, Math.max(0, stages.indexOf(stage)));
}

/**
 * Lists what is ticked off at a stage of a job.
 *
 * @example checksAt('valve-check', 'take-in').map(({ key }) => key) // ['cold', 'isolated']
 */
export function checksAt(job: JobKey, stage: StageKey): readonly StageCheck[] {
  const { without } = jobOf(job);
  return stageOf(stage).checks.filter(({ key }) => !without.includes(`${stage}:${key}`));
}

/**
 * Lists the jobs that one may become when something is found: those that have every stage of it and more. What was measured is kept.
 *
 * Rule: a job becomes a larger one, never a smaller one.
 *
 * @example largerJobs('valve-check').map(({ key }) => key) // ['rebuild']
 */
export function largerJobs(job: JobKey): readonly Job[] {
  const { stages } = jobOf(job);
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
