import { jobOf, type Circumstances, type JobKey } from './jobs.ts';
import {
  stageMeasuring,
  stageOf,
  type RoundKind,
  type Stage,
  type StageCheck,
  type StageKey,
} from './stages.ts';

/**
 * Gives the stage that a job begins at.
 *
 * @example firstStage('set-again') // 'set'
 */
export const firstStage = (job: JobKey): StageKey => jobOf(job).stages[0]!;

/**
 * Gives the stage that comes after another in a job; undefined at its last, and at one that it has not.
 *
 * @example nextStage('valve-check', 'open-up') // 'set'
 */
export function nextStage(job: JobKey, stage: StageKey): StageKey | undefined {
  const { stages } = jobOf(job);
  const at = stages.indexOf(stage);
  return at < 0 ? undefined : stages[at + 1];
}

/**
 * Lists the stages of a job that come before one of them, the first one first.
 *
 * @example stagesBefore('valve-check', 'set') // ['take-in', 'open-up']
 */
export function stagesBefore(job: JobKey, stage: StageKey): readonly StageKey[] {
  const { stages } = jobOf(job);
  return stages.slice(0, Math.max(0, stages.indexOf(stage)));
}

/**
 * Gives a stage as it is called, and what it is for, in a job.
 *
 * @example stageIn('valve-check', 'set').title // 'Check and set'
 */
export const stageIn = (job: JobKey, stage: StageKey): Stage => ({
  ...stageOf(stage),
  ...jobOf(job).words[stage],
});

/**
 * Gives the stage of a job in which a kind of round is measured; null where it is measured nowhere.
 *
 * @example measuredAt('valve-check', 'as-found') // 'set'
 */
export const measuredAt = (job: JobKey, kind: RoundKind): StageKey | null =>
  kind === 'as-found' ? jobOf(job).findsAt : stageMeasuring(kind).key;

/**
 * Says whether gaps are found and set in one lap at a stage of a job: what is out is set before the crank is turned on.
 *
 * @example setsAsFound('valve-check', 'set') // true
 */
export const setsAsFound = (job: JobKey, stage: StageKey): boolean =>
  jobOf(job).findsAt === stage && stageOf(stage).sets;

/**
 * Lists the rounds that entering a stage of a job begins: once a build, or each time.
 *
 * @example roundsBegun('valve-check', 'set').map(({ kind }) => kind) // ['as-found', 'as-set']
 */
export function roundsBegun(
  job: JobKey,
  stage: StageKey,
): readonly { readonly kind: RoundKind; readonly begins: 'once' | 'each-time' }[] {
  const { measures, begins } = stageOf(stage);
  return [
    ...(setsAsFound(job, stage) ? [{ kind: 'as-found', begins: 'once' } as const] : []),
    ...(measures === null || begins === 'never' ? [] : [{ kind: measures, begins }]),
  ];
}

/**
 * Lists what is ticked off at a stage of a job.
 *
 * @param circumstances what was done so far; whatever may be asked where it is left out
 * @example checksAt('valve-check', 'take-in').map(({ key }) => key) // ['cold', 'isolated']
 */
export function checksAt(
  job: JobKey,
  stage: StageKey,
  circumstances: Circumstances = { touched: true, camOut: true, hot: false },
): readonly StageCheck[] {
  const { without, onlyOnce, says, saysHot } = jobOf(job);
  return stageOf(stage).checks.flatMap((check) => {
    const name = `${stage}:${check.key}`;
    const once = onlyOnce[name];
    if (without.includes(name) || (once && !circumstances[once])) return [];
    if (check.only && circumstances.pattern && !check.only(circumstances.pattern)) return [];
    const hot = circumstances.hot ? saysHot[name] : undefined;
    return [{ ...check, text: hot ?? says[name] ?? check.text }];
  });
}
