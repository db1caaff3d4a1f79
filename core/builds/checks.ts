import type { AssemblyStep, Fastening } from '../assembly/index.ts';
import { kindOf } from '../checks/index.ts';
import type { Pattern } from '../sheets/index.ts';
import { CHECK_KINDS, type CheckRules } from './checkKinds.ts';
import { disturbances, lastDisturbed } from './disturbed.ts';
import type { BuildState, CheckState, RunInSays } from './buildState.ts';
import { NO_RUN_IN } from './heatCycles.ts';
import { goesOn } from './stageMove.ts';
import { stageOf, type StageKey } from './stages.ts';

/** What a sheet says of putting an engine together. */
interface SaysOfAssembly {
  readonly torques?: readonly Fastening[];
  readonly assembly?: readonly AssemblyStep[];
  readonly runIn?: RunInSays;
}

/** The rules of a check by its key; null where it is a fixed one of a stage. */
function rulesOf(check: string): (CheckRules & { readonly subject: string }) | null {
  const read = kindOf(check);
  return read && { ...CHECK_KINDS[read.kind], subject: read.subject };
}

/**
 * Says whether a stage of an engine has a check: one of its own, or one of a kind that is ticked there and that the engine has.
 *
 * @example hasCheck('set', 'head-A', pattern) // true
 */
export function hasCheck(
  key: StageKey,
  check: string,
  pattern: Pattern,
  { torques = [], assembly = [], runIn = NO_RUN_IN }: SaysOfAssembly = {},
): boolean {
  const stage = stageOf(key);
  if (stage.checks.some((each) => each.key === check)) return true;
  const rules = rulesOf(check);
  return (
    rules !== null && rules.tickedAt(stage) && rules.of({ pattern, torques, assembly, runIn }).includes(check)
  );
}

/**
 * Says what a check is, in a line; for one that belongs to an engine it says which head or point.
 *
 * @param pattern of the engine, where it is known: what was slackened is then named as it lies there
 * @example checkInWords('prove', 'accepted 3E') // '3E left as it is'
 */
export function checkInWords(key: StageKey, check: string, pattern?: Pattern): string {
  const slackened = pattern && disturbances(pattern).find((each) => each.key === check);
  if (slackened) return slackened.text;
  const own = stageOf(key).checks.find((each) => each.key === check);
  const rules = rulesOf(check);
  return own?.text ?? rules?.words(rules.subject) ?? check;
}

/**
 * Says what a person is told who may not tick a check, because only a lead does; null where anybody at the bench may.
 *
 * @example onlyByLead('accepted 3E') // 'Only a lead may let a point stand as it is.'
 */
export const onlyByLead = (check: string): string | null => rulesOf(check)?.byLead ?? null;

/**
 * Lists the ticks that are no longer true once a build is at a stage: what lies behind a step back, and what a change has
 * undone since.
 *
 * Rule: with the cover off again nothing is closed; the two turns and the marks hold until something is set, slackened or
 * taken out.
 *
 * @example undoneBy(build, 'set') // with a build at Close: parts counted in, cover on, first start
 */
export function undoneBy<Tick extends CheckState>(
  { ticks, ...build }: Omit<BuildState, 'ticks' | 'signOff'> & { readonly ticks: readonly Tick[] },
  to: StageKey,
): readonly Tick[] {
  const { unticks, unticksIfChanged, begins } = stageOf(to);
  const again = !goesOn(build.job, build.stage, to) || begins === 'each-time';
  const changes = [...lastDisturbed({ ...build, ticks }).values()].map((at) => Date.parse(at));
  const changedAt = Math.max(...changes, -Infinity);
  return ticks.filter(
    ({ stage, check, done, at }) =>
      done &&
      rulesOf(check)?.undoneBy !== 'nothing' &&
      ((again && unticks.includes(stage)) ||
        (unticksIfChanged.includes(stage) && Date.parse(at) <= changedAt)),
  );
}
