import { whyNoProof, type KeptReading } from '../measuring/index.ts';
import { lashPoints, meansFor, type LashPoint, type Pattern } from '../sheets/index.ts';
import type { BuildStanding } from './stageMove.ts';
import { stageOf, type RoundKind, type StageKey } from './stages.ts';

/** A build as it is kept, as far as its standing goes. Rounds are in the order they were opened. */
export interface KeptBuild {
  readonly stage: StageKey;
  readonly sheet: { readonly pattern: Pattern };
  /** each check as it was last ticked, or unticked */
  readonly ticks: readonly { readonly stage: StageKey; readonly check: string; readonly done: boolean }[];
  readonly rounds: readonly KeptRound[];
  readonly settings: readonly KeptSetting[];
  readonly signOff: object | null;
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
  readonly kind: 'turned' | 'fitted' | 'left';
  readonly at: string;
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
 * @example findings(build.rounds).get('3E')?.verdict // 'tight'
 */
export function findings<Round extends KeptRound>(
  rounds: readonly Round[],
): ReadonlyMap<string, Round['readings'][number]> {
  const found = new Map<string, Round['readings'][number]>();
  for (const { kind, readings } of rounds)
    if (kind !== 'recheck')
      for (const reading of readings)
        if (whyNoProof(reading, null) === null) found.set(reading.point, reading);
  return found;
}

/**
 * Finds what was last turned or fitted at a point; null where nothing was.
 *
 * @example lastChange(build.settings, '2I')?.at
 */
export function lastChange<Setting extends KeptSetting>(
  settings: readonly Setting[],
  point: string,
): Setting | null {
  return settings.find((setting) => setting.point === point && setting.kind !== 'left') ?? null;
}

/**
 * Lists the points that a change at one of them disturbs, itself among them. A screw, a pivot nut and a shim on top of a
 * bucket are changed with everything round them left as it was. Under a bucket or a finger, a graded bucket or a lash cap:
 * cam or rockers come out first, and every point they bear on, at least along that head, is another one afterwards.
 *
 * Rule: a gap belongs to how its cam and rocker lay when it was measured; what was lifted out lies anew.
 *
 * @example disturbedBy(pattern, '2I') // ['1I', '1E', '2I', '2E'] with shims under the buckets
 */
export function disturbedBy(pattern: Pattern, key: string): readonly string[] {
  const points = lashPoints(pattern);
  const changed = points.find((point) => point.key === key);
  if (!changed) return [];
  const means = meansFor(pattern, changed.role);
  const alone =
    means.kind === 'screw' ||
    means.kind === 'pivot-nut' ||
    (means.kind === 'shim' && means.seat === 'on-bucket');
  const bankOf = (cylinder: string) => pattern.cylinders.find(({ id }) => id === cylinder)?.bank;
  const valveOf = ({ role }: LashPoint) => role.replace('-closing', '');
  // the two sides of a valve that is drawn shut bear on one another
  const disturbed = alone
    ? (point: LashPoint) =>
        point.cylinder === changed.cylinder &&
        point.index === changed.index &&
        valveOf(point) === valveOf(changed)
    : (point: LashPoint) => bankOf(point.cylinder) === bankOf(changed.cylinder);
  return points.filter(disturbed).map((point) => point.key);
}

/**
 * Finds for each point when something was last changed that disturbs it: there, or at a neighbour under the same cam.
 *
 * @returns no entry for a point that nothing disturbed
 * @example lastDisturbed(pattern, build.settings).get('1I')
 */
export function lastDisturbed(
  pattern: Pattern,
  settings: readonly KeptSetting[],
): ReadonlyMap<string, string> {
  const last = new Map<string, string>();
  for (const { point, kind, at } of settings)
    if (kind !== 'left')
      for (const key of disturbedBy(pattern, point))
        if (Date.parse(at) > Date.parse(last.get(key) ?? '0001-01-01')) last.set(key, at);
  return last;
}

/**
 * Finds what proves each point: the newest reading at proving that nothing has disturbed since. Going back to set one point
 * takes nothing from the others; and where a build carries a recheck's finding over, what that found holds for the points
 * it leaves alone.
 *
 * @example provenBy(build).get('3E')?.verdict // 'in-spec'
 */
export function provenBy<Round extends KeptRound>({
  sheet,
  rounds,
  settings,
}: Pick<KeptBuild, 'sheet' | 'settings'> & { readonly rounds: readonly Round[] }): ReadonlyMap<
  string,
  Round['readings'][number]
> {
  const disturbed = lastDisturbed(sheet.pattern, settings);
  const proven = new Map<string, Round['readings'][number]>();
  for (const { kind, carried = false, readings } of rounds)
    if (kind === 'proved' || carried)
      for (const reading of readings)
        if (whyNoProof(reading, disturbed.get(reading.point) ?? null) === null)
          proven.set(reading.point, reading);
  return proven;
}

/**
 * Lists the points set, or left alone on purpose, since their newest finding: a point found out at proving wants setting
 * again, however often it was set before.
 *
 * @example pointsSet(build).has('3E')
 */
export function pointsSet({ rounds, settings }: Pick<KeptBuild, 'rounds' | 'settings'>): Set<string> {
  const found = findings(rounds);
  return new Set(
    settings
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
  const proofs = provenBy(build).values();
  const here = stageOf(build.stage).measures === 'as-found' ? asFound : proved;
  const verdicts = (readings: Iterable<KeptReading>) =>
    new Map([...readings].map(({ point, verdict }) => [point, verdict]));
  return {
    stage: build.stage,
    ticked: new Set(build.ticks.filter(({ done }) => done).map(({ stage, check }) => `${stage}:${check}`)),
    points: lashPoints(build.sheet.pattern).map(({ key }) => key),
    asFound: verdicts(found),
    toSetBy: verdicts(findings(build.rounds).values()),
    proved: verdicts(proofs),
    offBase: new Set(here?.readings.filter(({ offBase }) => offBase).map(({ point }) => point)),
    set: pointsSet(build),
    signedOff: build.signOff !== null,
  };
}
