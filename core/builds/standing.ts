import { whyNoProof, type KeptReading, type NoProof } from '../measuring/index.ts';
import type { GivenLimit, WearLine } from '../wear/index.ts';
import { assemblyDone, capsLoose } from './assembled.ts';
import { nothingCounted, wearLeft } from './decided.ts';
import { NO_RUN_IN, runInLeft, type RunInSays } from './heatCycles.ts';
import { assemblyLeft, type AssemblyStep, type Fastening } from '../assembly/index.ts';
import type { LedgerLine } from '../parts/index.ts';
import { lashPoints, type Pattern } from '../sheets/index.ts';
import { acceptedPoints } from './accepted.ts';
import { camOutAt, lastTakenApart, type ProvesAgain } from './disturbed.ts';
import { bridgesOpen } from './bridges.ts';
import { partsExplained, partsOff, passesOpen } from './closing.ts';
import { provenBy } from './proved.ts';
import type { Entry } from '../entries/index.ts';
import { bareHeld, toolsIn } from './holds.ts';
import { pointsBare } from './lastChange.ts';
import type { BuildStanding } from './stageMove.ts';
import { stageOf, type RoundKind, type StageKey } from './stages.ts';

/** A build as it is kept, as far as its standing goes. Rounds are in the order they were opened. */
export interface KeptBuild {
  readonly stage: StageKey;
  readonly sheet: {
    readonly pattern: Pattern;
    readonly torques?: readonly Fastening[];
    readonly assembly?: readonly AssemblyStep[];
    readonly runIn?: RunInSays;
    readonly wearLimits?: readonly GivenLimit[];
  };
  /** each check as it was last ticked, or unticked */
  readonly ticks: readonly KeptTick[];
  readonly rounds: readonly KeptRound[];
  readonly settings: readonly KeptSetting[];
  /** what was counted out and in; left out where that is not asked about */
  readonly ledger?: readonly Entry<LedgerLine>[];
  /** how much is proved again after a change, where the shop wants more than it disturbed */
  readonly provesAgain?: ProvesAgain;
  /** the shop lets a screw's reading after locking stand, where two turns follow without resistance */
  readonly lockedStands?: boolean;
  /** what is written down of its wear; left out where that is not asked about */
  readonly wear?: readonly Entry<WearLine>[];
  /** notes of its stages; left out where that is not asked about */
  readonly notes?: readonly { readonly stage: StageKey; readonly text: string }[];
  readonly signOff: object | null;
}

/** A check as it was last ticked or unticked. */
export interface KeptTick {
  readonly stage: StageKey;
  readonly check: string;
  readonly done: boolean;
  readonly at: string;
  /** when it was ticked before, and taken back since */
  readonly earlier?: readonly string[];
}

/** A round as it is kept: the reading that stands at each point. */
export interface KeptRound {
  readonly kind: RoundKind;
  /** the recheck whose finding this build was opened for */
  readonly carried?: boolean;
  readonly readings: readonly KeptReading[];
}

/** What was done at a point: the newest of it. */
export interface KeptSetting {
  readonly point: string;
  /** left alone on purpose, it changes nothing */
  readonly kind: 'turned' | 'fitted' | 'left' | 'bare';
  readonly at: string;
  /** the point whose piece it was until then */
  readonly giver?: string | null;
}

/**
 * Finds the newest round of a kind.
 *
 * @example newestRound(build.rounds, 'proved')?.readings.length
 */
export function newestRound<Round extends KeptRound>(
  rounds: readonly Round[],
  kind: Round['kind'],
): Round | undefined {
  return rounds.filter((round) => round.kind === kind).at(-1);
}

/**
 * Finds what each point is set by: its newest reading, as found or at proving, that proved anything when it was taken. A
 * finding stays one until the point is measured again, however often the build goes forth and back in between.
 *
 * @param also readings that prove nothing yet and count all the same: where a screw is set, one from before its locking
 * @example findings(build.rounds).get('3E')?.verdict // 'tight'
 */
export function findings<Round extends KeptRound>(
  rounds: readonly Round[],
  also: NoProof | null = null,
): ReadonlyMap<string, Round['readings'][number]> {
  const found = new Map<string, Round['readings'][number]>();
  for (const { kind, readings } of rounds)
    if (kind !== 'recheck')
      for (const reading of readings)
        if ([null, also].includes(whyNoProof(reading, null))) found.set(reading.point, reading);
  return found;
}

/**
 * Finds what each point is set by now: its newest finding, unless what it rested on was taken apart since.
 *
 * @param also see `findings`
 * @example findingsNow(build).has('3E') // false once its rocker shaft was off
 */
export function findingsNow<Round extends KeptRound>(
  build: Pick<KeptBuild, 'sheet' | 'ticks'> & { readonly rounds: readonly Round[] },
  also: NoProof | null = null,
): ReadonlyMap<string, Round['readings'][number]> {
  const apart = lastTakenApart(build);
  const found = findings(build.rounds, also);
  if (apart.size === 0) return found;
  return new Map(
    [...found].filter(([point, { takenAt }]) => {
      const at = apart.get(point);
      return at === undefined || Date.parse(takenAt) >= Date.parse(at);
    }),
  );
}

/**
 * Lists the points set, or left alone on purpose, since their newest finding: a point found out at proving wants setting
 * again, however often it was set before.
 *
 * @example pointsSet(build).has('3E')
 */
export function pointsSet(build: Pick<KeptBuild, 'rounds' | 'settings' | 'sheet' | 'ticks'>): Set<string> {
  const found = findingsNow(build);
  return new Set(
    build.settings
      .filter(({ point, at }) => {
        const finding = found.get(point);
        return !finding || Date.parse(at) >= Date.parse(finding.takenAt);
      })
      .map(({ point }) => point),
  );
}

/**
 * Works out where a build stands, from what is kept of it: the browser and the server ask the same question of the
 * same rows, so they agree on whether a stage may be left.
 *
 * @example obstaclesTo(standingOf(build))
 */
export function standingOf(build: KeptBuild): BuildStanding {
  const asFound = newestRound(build.rounds, 'as-found');
  const proved = newestRound(build.rounds, 'proved');
  // what was changed since says nothing of how it was found, only of how it is
  const found = (asFound?.readings ?? []).filter((reading) => whyNoProof(reading, null) === null);
  const proofs = provenBy(build);
  const here = stageOf(build.stage).measures === 'as-found' ? asFound : proved;
  const verdicts = (readings: Iterable<KeptReading>) =>
    new Map([...readings].map(({ point, verdict }) => [point, verdict]));
  return {
    stage: build.stage,
    ticked: new Set(build.ticks.filter(({ done }) => done).map(({ stage, check }) => `${stage}:${check}`)),
    points: lashPoints(build.sheet.pattern).map(({ key }) => key),
    asFound: verdicts(found),
    toSetBy: verdicts(findingsNow(build).values()),
    proved: verdicts(proofs.values()),
    accepted: acceptedPoints(build, proofs),
    offBase: new Set(here?.readings.filter(({ offBase }) => offBase).map(({ point }) => point)),
    set: pointsSet(build),
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
    runIn: runInLeft(
      build.sheet.runIn ?? NO_RUN_IN,
      [...new Set(build.sheet.pattern.cylinders.map(({ bank }) => bank))].sort(),
      build.ticks,
    ),
    unbalanced: bridgesOpen(build),
    partsOff: partsOff(build.ledger ?? []).map(({ line, off }) => partInWords(line, off)),
    partsExplained: partsExplained({ ledger: build.ledger ?? [], ticks: build.ticks }),
    passesOpen: passesOpen(build),
    signedOff: build.signOff !== null,
  };
}

const partInWords = ({ name, place }: LedgerLine, off: number) =>
  `${[name, place].filter(Boolean).join(' ')} (${off < 0 ? `${-off} missing` : `${off} left over`})`;
