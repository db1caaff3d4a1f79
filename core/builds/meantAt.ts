import { heldHot, whyNoProof, type Meant } from '../measuring/index.ts';
import { heldAgainst } from './judgedAgain.ts';
import type { BuildState, RoundState } from './buildState.ts';
import { setsAsFound } from './jobStages.ts';
import type { RoundKind } from './stages.ts';

/**
 * Says what the engine is to be like as a round is taken: as its sheet says; cold, where it cannot be run and is set to cold figures.
 *
 * Rule: what was found hot before that was said, and every recheck, is held by the hot figures.
 *
 * @param kind of the round; null where none is looked at
 * @returns null where it is not asked about
 * @example meantAt({ ...sheet, condition: 'hot', setCold: { foundHot: false } }, 'as-set')?.condition // 'cold'
 */
export function meantAt(
  { condition, temperature = null, pattern, coldHours, setCold = null }: BuildState['sheet'],
  kind: RoundKind | null,
): Meant | null {
  if (condition === undefined) return null;
  // at proving both what was touched and what was not is measured as it is set
  const against = kind === null || kind === 'proved' ? 'set' : heldAgainst(kind, '', []);
  if (!setCold || heldHot(setCold, against)) return { condition, temperature, pattern, coldHours };
  return { condition: 'cold', temperature: null, pattern, coldHours };
}

/**
 * Says from where on cold figures would hold in a build, if it were said now that its engine cannot be run, or that it can after all: from
 * the first reading on, or only as it is set, where its gaps were found hot.
 *
 * Rule: what was set or proved stays judged by what it was read by.
 *
 * @returns null where gaps were read already by what would be changed
 * @example coldFrom({ job: 'rebuild', stage: 'as-found', sheet, rounds: [] }) // 'found'
 */
export function coldFrom({
  job,
  stage,
  sheet,
  rounds,
}: Pick<BuildState, 'job' | 'stage' | 'sheet' | 'rounds'>): 'found' | 'set' | null {
  const read = rounds.filter(
    ({ readings, carried = false }) =>
      !carried && readings.some((each) => whyNoProof(each, null) !== 'withdrawn'),
  );
  const { setCold = null } = sheet;
  const isFixed = ({ kind }: RoundState) =>
    // found and set in one lap, both are judged by one band
    setsAsFound(job, stage) ||
    kind !== 'as-found' ||
    (setCold !== null && !heldHot(setCold, heldAgainst(kind, '', [])));
  if (read.some(isFixed)) return null;
  return read.length > 0 ? 'set' : 'found';
}
