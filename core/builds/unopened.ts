import { checkKey } from '../checks/index.ts';
import { whyNoProof } from '../measuring/index.ts';
import { lashPoints, perPattern, type Bank, type Pattern } from '../sheets/index.ts';
import type { BuildState } from './buildState.ts';
import { jobOf } from './jobs.ts';
import { setsAsFound } from './jobStages.ts';
import { SETTING, stageOf, type RoundKind, type StageKey } from './stages.ts';

/** One of several heads, with its points. */
export interface HeadPoints {
  readonly head: Bank;
  readonly points: readonly string[];
}

/**
 * Lists the heads of an engine that has more than one; none of another, whose one head is the engine's.
 *
 * @example severalHeads(pattern) // [] of an engine in line
 */
export const severalHeads = perPattern((pattern: Pattern): readonly HeadPoints[] => {
  const heads = [...new Set(pattern.cylinders.map(({ bank }) => bank))].sort();
  if (heads.length < 2) return [];
  const bankOf = new Map(pattern.cylinders.map(({ id, bank }) => [id, bank]));
  return heads.map((head) => ({
    head,
    points: lashPoints(pattern)
      .filter(({ cylinder }) => bankOf.get(cylinder) === head)
      .map(({ key }) => key),
  }));
});

type Opened = Pick<BuildState, 'job' | 'sheet' | 'ticks' | 'rounds' | 'settings'>;

/**
 * Lists the heads of which nothing was read or set in a build; none of an engine with one head.
 *
 * @example untouchedHeads({ job: 'valve-check', sheet, ticks: [], rounds: [], settings: [] }).length // 0
 */
export function untouchedHeads({ sheet, rounds, settings }: Opened): readonly HeadPoints[] {
  const done = new Set([
    ...settings.map(({ point }) => point),
    ...rounds
      .filter(({ carried = false }) => !carried)
      .flatMap(({ readings }) => readings.filter((each) => whyNoProof(each, null) !== 'withdrawn'))
      .map(({ point }) => point),
  ]);
  return severalHeads(sheet.pattern).filter(({ points }) => !points.some((point) => done.has(point)));
}

/**
 * Lists the heads whose covers are still on in a check, because one head is finished before the next is opened.
 *
 * Rule: it is ticked; as soon as anything of that head is read or set it is open, and of an engine one head always is.
 *
 * @example unopenedHeads({ job: 'valve-check', sheet, ticks: [], rounds: [], settings: [] }) // []
 */
export function unopenedHeads(build: Opened): readonly HeadPoints[] {
  if (!setsAsFound(build.job, SETTING)) return [];
  const said = untouchedHeads(build).filter(({ head }) =>
    build.ticks.some(
      ({ stage, check, done }) => done && stage === SETTING && check === checkKey('unopened', head),
    ),
  );
  return said.length < severalHeads(build.sheet.pattern).length ? said : [];
}

/**
 * Lists the kinds of round that end as a stage is entered: what was found is still open as long as a head is.
 *
 * @example roundsEnded(build, 'prove') // ['as-found', 'as-set', 'proved']
 */
export function roundsEnded(build: Opened, stage: StageKey): readonly RoundKind[] {
  const { ends } = stageOf(stage);
  const { findsAt } = jobOf(build.job);
  const stillFound = unopenedHeads(build).length > 0;
  return ends.filter((kind) => !(kind === 'as-found' && stillFound && findsAt === SETTING));
}
