import { tenthsFromMm } from '../length/index.ts';
import { conditionCautions, whyNoProof, type Conditions, type ReadingState } from '../measuring/index.ts';
import { meantAt } from './meantAt.ts';
import { lashPoints, meansFor } from '../sheets/index.ts';
import { bridgedPoints } from './bridges.ts';
import { lastDisturbed, lastTakenApart } from './disturbed.ts';
import { jobOf } from './jobs.ts';
import { stageMeasuring, type StageKey } from './stages.ts';
import type { BuildState, RoundState, CheckState } from './buildState.ts';

/** A moment that no reading is taken after: nothing counts yet. */
export const NOT_YET = '9999-12-31T23:59:59.000Z';

/**
 * Finds for each point from which moment on what is read at proving counts: after the two turns that followed whatever disturbed
 * it last. Where they were not made nothing counts yet.
 *
 * Rule: two turns by hand settle it; what is read before them is not how it will be.
 *
 * @param build signed off, what was signed stays proved as it was then
 * @example provesFrom(build).get('3E')
 */
export function provesFrom(
  build: Omit<BuildState, 'rounds' | 'signOff'> & { readonly signOff?: object | null },
): ReadonlyMap<string, string> {
  const disturbed = lastDisturbed(build);
  if (build.signOff) return disturbed;
  const { key: proving, checks } = stageMeasuring('proved');
  const wanted = checks.filter(({ beforeReadings }) => beforeReadings).map(({ key }) => key);
  const from = new Map<string, string>();
  for (const { key } of lashPoints(build.sheet.pattern)) {
    const since = disturbed.get(key) ?? '0001-01-01';
    const firsts = wanted.map(
      (check) =>
        tickedAt(build.ticks, proving, check).find((at) => Date.parse(at) >= Date.parse(since)) ?? NOT_YET,
    );
    from.set(key, latest([since, ...firsts]));
  }
  return from;
}

/** Every moment at which a check was ticked, taken back since or not, the first one first. */
function tickedAt(ticks: readonly CheckState[], stage: StageKey, check: string): readonly string[] {
  return ticks
    .filter((tick) => tick.stage === stage && tick.check === check)
    .flatMap(({ done, at, earlier = [] }) => [...earlier, ...(done ? [at] : [])])
    .toSorted((a, b) => Date.parse(a) - Date.parse(b));
}

const latest = (moments: readonly string[]) =>
  moments.reduce((last, at) => (Date.parse(at) > Date.parse(last) ? at : last));

/** mm/10000: how far over the minimum a reading after locking has to lie to stand without another after the turns. */
const LOCKED_GUARD = 40;

/**
 * Says whether a reading taken where a screw was set stands as its proof: locked, its shaft never slackened, in its band by at
 * least the guard over the minimum, and two turns without resistance after it. Pieces, pivot nuts, bridges, closing sides and
 * whatever lay under something that was off are read after the turns, always.
 */
function lockedProof(
  build: Omit<BuildState, 'rounds' | 'signOff'>,
  reading: ReadingState & { readonly lo?: number; readonly limits?: { readonly min: number } },
  changedAt: string | undefined,
): boolean {
  const { pattern } = build.sheet;
  const point = lashPoints(pattern).find(({ key }) => key === reading.point);
  if (!build.lockedStands || !point || reading.verdict !== 'in-spec' || changedAt === undefined) return false;
  const means = meansFor(pattern, point.role);
  if (means.kind !== 'screw' || means.locking !== 'lock-nut' || point.role.endsWith('closing')) return false;
  if (bridgedPoints(pattern).includes(point.key) || lastTakenApart(build).has(point.key)) return false;
  if (whyNoProof(reading, changedAt) !== null) return false;
  if (tenthsFromMm(reading.lo ?? 0) < tenthsFromMm(reading.limits?.min ?? Infinity) + LOCKED_GUARD)
    return false;
  const { key, checks } = stageMeasuring('proved');
  return checks
    .filter(({ beforeReadings }) => beforeReadings)
    .every(({ key: check }) =>
      tickedAt(build.ticks, key, check).some((at) => Date.parse(at) >= Date.parse(reading.takenAt)),
    );
}

const NOTHING_SAID: Conditions = { engineTempC: null, hoursSinceRun: null, condition: null };

/** Whether a round was taken as the sheet's figures are meant: cold unless somebody says otherwise, hot only where somebody says so. */
function asMeant(sheet: BuildState['sheet'], { kind, conditions }: RoundState): boolean {
  const meant = meantAt(sheet, kind);
  if (meant === null) return false;
  const said = conditions?.at(-1) ?? NOTHING_SAID;
  const fits = conditionCautions(meant, said).length === 0;
  return fits && (meant.condition === 'cold' || said.condition === meant.condition);
}

/** Whether a point was found in its band. */
const isSound = (reading: ReadingState): boolean =>
  reading.verdict === 'in-spec' && whyNoProof(reading, null) === null;

/**
 * Finds what proves each point: the newest reading at proving that nothing has disturbed since, taken after the two turns. Going
 * back to set one point takes nothing from the others; where a build carries a recheck's finding over, what that found holds
 * for the points it leaves alone; and where a job opens nothing of the train, what was found in its band holds for what nobody touched.
 *
 * Rule: only what was touched is proved, and what that disturbed; a shop may ask for more.
 *
 * @example provenBy(build).get('3E')?.verdict // 'in-spec'
 */
export function provenBy<Round extends RoundState>({
  rounds,
  ...build
}: Omit<BuildState, 'rounds' | 'signOff'> & {
  readonly rounds: readonly Round[];
  readonly signOff?: object | null;
}): ReadonlyMap<string, Round['readings'][number]> {
  const disturbed = lastDisturbed(build);
  const from = provesFrom(build);
  const proven = new Map<string, Round['readings'][number]>();
  const { foundProves } = jobOf(build.job);
  const readAgain = new Set(
    rounds
      .filter(({ kind }) => kind === 'as-set' || kind === 'proved')
      .flatMap(({ readings }) => readings.filter((each) => whyNoProof(each, null) !== 'withdrawn'))
      .map(({ point }) => point),
  );
  for (const round of rounds) {
    const { kind, carried = false, readings } = round;
    const standsAsFound = kind === 'as-found' && foundProves && !carried && asMeant(build.sheet, round);
    for (const reading of readings) {
      const changed = disturbed.get(reading.point);
      // what a recheck found holds for what was not touched since
      const since = carried ? changed : kind === 'proved' ? from.get(reading.point) : NOT_YET;
      if (whyNoProof(reading, since ?? null) === null) proven.set(reading.point, reading);
      else if (kind === 'as-set' && lockedProof(build, reading, changed)) proven.set(reading.point, reading);
      else if (standsAsFound && changed === undefined && !readAgain.has(reading.point) && isSound(reading))
        proven.set(reading.point, reading);
    }
  }
  return proven;
}

/**
 * Finds for each point from which moment on what is shown there at proving counts: as `provesFrom`, but for points that are proved
 * without the two turns, by a recheck's finding that is carried over, by what was found and left alone, or by a locked screw that the
 * shop lets stand.
 *
 * @example countsFrom(build).has('3E') // false where a recheck found it in its band and nothing was touched since
 */
export function countsFrom(build: Parameters<typeof provenBy>[0]): ReadonlyMap<string, string> {
  const proven = provenBy(build);
  return new Map(
    [...provesFrom(build)].filter(([point, from]) => {
      const proof = proven.get(point);
      return proof === undefined || Date.parse(proof.takenAt) >= Date.parse(from);
    }),
  );
}
