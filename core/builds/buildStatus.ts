import { assemblyLeft } from '../assembly/index.ts';
import { whyNoProof, type ReadingState, type Verdict } from '../measuring/index.ts';
import type { LedgerLine } from '../parts/index.ts';
import { lashPoints } from '../sheets/index.ts';
import { acceptedPoints } from './accepted.ts';
import { assemblyDone, capsLoose } from './assembled.ts';
import { bridgesOpen } from './bridges.ts';
import type { BuildState } from './buildState.ts';
import { countedIn, partsExplained, partsOff, passesOpen } from './closing.ts';
import { nothingCounted, wearLeft } from './decided.ts';
import { camCapsOffAt, camOutAt, lastDisturbed } from './disturbed.ts';
import { findingsNow, newestRound, pointsSet } from './findings.ts';
import { headsToTighten, NO_RUN_IN, runInLeft, type RunInLeft } from './heatCycles.ts';
import { bareHeld, camsOutUnsaid, toolsIn } from './holds.ts';
import { notMeasured, pointsBare } from './lastChange.ts';
import { jobOf, type Circumstances, type JobKey } from './jobs.ts';
import { measuredAt } from './jobStages.ts';
import { meantAt } from './meantAt.ts';
import { provenBy } from './proved.ts';
import type { StageKey } from './stages.ts';
import { unopenedHeads, type HeadPoints } from './unopened.ts';

/** The status of a build, as far as leaving a stage and signing go: what is measured, set, proved, and still open. */
export interface BuildStatus {
  readonly job: JobKey;
  readonly stage: StageKey;
  /** what was done so far, as far as what is asked follows from it */
  readonly circumstances: Circumstances;
  /** `stage:check` of everything ticked */
  readonly ticked: ReadonlySet<string>;
  /** what the record answers by itself, and from what; null where a person says it */
  readonly answers: Readonly<Record<'count', string | null>>;
  /** every lash point of the build's pattern */
  readonly points: readonly string[];
  /** those of them that the sheet has no limits for yet */
  readonly unlimited: readonly string[];
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
  /** points that cannot be reached, as somebody said, and that nobody measured since */
  readonly unreached: readonly string[];
  /** points that came apart before anybody measured them, and were not measured since */
  readonly apart: readonly string[];
  /** heads whose covers are still on, because another one is finished first */
  readonly unopened: readonly HeadPoints[];
  /** points set, or left alone on purpose, since that finding */
  readonly set: ReadonlySet<string>;
  /** points at which a tool holds the valve down */
  readonly heldDown: readonly string[];
  /** points that nothing is in */
  readonly bare: readonly string[];
  /** points that were set before their bridge was balanced */
  readonly unbalanced: readonly string[];
  /** a cam came out, and nobody says that the crank stood where the sheet has them come out */
  readonly camsPositionUnsaid: boolean;
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
  /** heads that the sheet has tightened again at this check, and that are not yet */
  readonly headsToTighten: readonly string[];
  /** heat cycles, and heads to be tightened again, that the sheet asks for before it is signed off */
  readonly runIn: RunInLeft;
  readonly signedOff: boolean;
}

/**
 * Works out the status of a build from its state: the browser and the server ask the same question of the
 * same rows, so they agree on whether a stage may be left.
 *
 * @example obstaclesTo(statusOf(build))
 */
export function statusOf(build: BuildState): BuildStatus {
  const asFound = newestRound(build.rounds, 'as-found');
  const proved = newestRound(build.rounds, 'proved');
  // what was changed since says nothing of how it was found, only of how it is
  const found = (asFound?.readings ?? []).filter((reading) => whyNoProof(reading, null) === null);
  const proofs = provenBy(build);
  const here = measuredAt(build.job, 'as-found') === build.stage ? asFound : proved;
  const { strips } = jobOf(build.job);
  const unmeasured = [...notMeasured(build).values()];
  const verdicts = (readings: Iterable<ReadingState>) =>
    new Map([...readings].map(({ point, verdict }) => [point, verdict]));
  return {
    job: build.job,
    stage: build.stage,
    circumstances: circumstancesOf(build),
    ticked: new Set(build.ticks.filter(({ done }) => done).map(({ stage, check }) => `${stage}:${check}`)),
    answers: { count: countedIn(build.ledger ?? []) },
    points: lashPoints(build.sheet.pattern).map(({ key }) => key),
    unlimited: measuredWithout(build.sheet),
    asFound: verdicts(found),
    toSetBy: verdicts(findingsNow(build).values()),
    proved: verdicts(proofs.values()),
    accepted: acceptedPoints(build, proofs),
    offBase: new Set(here?.readings.filter(({ offBase }) => offBase).map(({ point }) => point)),
    set: pointsSet(build),
    unopened: unopenedHeads(build),
    unreached: unmeasured.filter(({ cause }) => cause === 'unreached').map(({ point }) => point),
    apart: unmeasured.filter(({ cause }) => cause === 'apart').map(({ point }) => point),
    heldDown: toolsIn(build.ticks),
    bare: pointsBare(build.settings),
    assemblyLeft: assemblyLeft(
      build.sheet.assembly ?? [],
      assemblyDone(build),
      camOutAt(build) > -Infinity,
    ).map(({ text }) => text),
    capsLoose: capsLoose(build),
    bareHeld: bareHeld(build),
    nothingCounted: nothingCounted(build),
    ...wearLeft(build),
    headsToTighten: headsToTighten(build),
    runIn: runInLeft(
      // what is only checked ran in before
      (strips ? build.sheet.runIn : undefined) ?? NO_RUN_IN,
      [...new Set(build.sheet.pattern.cylinders.map(({ bank }) => bank))].sort(),
      build.ticks,
    ),
    unbalanced: bridgesOpen(build),
    camsPositionUnsaid: camsOutUnsaid(build),
    partsOff: partsOff(build.ledger ?? []).map(({ line, off }) => partInWords(line, off)),
    partsExplained: partsExplained({ ledger: build.ledger ?? [], ticks: build.ticks }),
    passesOpen: passesOpen(build),
    signedOff: build.signOff !== null,
  };
}

/**
 * Says what was done in a build, as far as what is asked follows from it.
 *
 * @example circumstancesOf(build).touched // false: nothing was out
 */
export const circumstancesOf = (
  build: Pick<BuildState, 'sheet' | 'settings' | 'ticks' | 'provesAgain'>,
): Circumstances => ({
  touched: lastDisturbed(build).size > 0,
  camOut: camCapsOffAt(build) > -Infinity,
  // it is booked in as it is found
  hot: meantAt(build.sheet, 'as-found')?.condition === 'hot',
  pattern: build.sheet.pattern,
});

/** Of a sheet that is not asked about, nobody says that its limits are missing. */
const measuredWithout = ({ pattern, limits }: BuildState['sheet']): readonly string[] =>
  limits
    ? lashPoints(pattern)
        .filter(({ role }) => limits.every((each) => each.role !== role))
        .map(({ key }) => key)
    : [];

const partInWords = ({ name, place }: LedgerLine, off: number) =>
  `${[name, place].filter(Boolean).join(' ')} (${off < 0 ? `${-off} missing` : `${off} left over`})`;
