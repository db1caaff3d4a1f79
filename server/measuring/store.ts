import type { BuildRowChange, BuildWrite } from '@zero-lash/contract/builds';
import type { newReading } from '@zero-lash/contract/measuring';
import type { SheetRevision } from '@zero-lash/contract/sheets';
import {
  heldAgainst,
  kindInLap,
  measuredAt,
  setsAsFound,
  type CheckState,
  type SettingState,
} from '@zero-lash/core/builds';
import { intervalOf, isWithdrawal, judge, saysOtherwise, type Reading } from '@zero-lash/core/measuring';
import { meansFor } from '@zero-lash/core/sheets';
import { mayMeasurePoint } from '@zero-lash/core/turning';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { written } from '../builds/lock.ts';
import { takeLate } from '../builds/cameLate.ts';
import { whenTaken, type WriteContext } from '../plugins/writeContext.ts';
import { isAhead } from '../clock.ts';
import { Refusal } from '../plugins/errors.ts';
import { reopenRecheck } from '../rechecks/reopen.ts';
import { holdAgainstSignature } from '../rechecks/late.ts';
import { limitsAt, pointAt } from '../sheets/limitsAt.ts';
import { effectiveSheet } from '../sheets/effectiveSheet.ts';
import { findRevision } from '../sheets/read.ts';
import { hollowsOf } from '../wear/hollows.ts';
import { parseReading, readReadings } from './rounds.ts';
import { lockRound, roundOf, type LockedRound } from './lockRound.ts';

/** The reading that stands at a point as another comes. */
interface CurrentReading {
  readonly id: string;
  readonly by: string;
  readonly personId: string;
  readonly takenAt: Date;
  readonly reading: unknown;
}

/**
 * Keeps a reading with the core's verdict. What was taken last stands; the other is superseded, not lost, whichever of
 * the two came in first. One that was taken before its recheck was judged and came in after reopens the question.
 *
 * @param moved when it was taken, by this database's clock, where it is moved from another round, which may have been open before this one
 */
export async function addReading(
  db: Knex,
  roundId: string,
  sent: z.output<typeof newReading>,
  context: WriteContext,
  moved?: Date,
): Promise<BuildWrite> {
  const said = await lockRound(db, roundId);
  const { build } = said;
  const taken = sent.takes ? await readingTaken(db, said.id, sent.takes, sent.point) : null;
  const input = { ...sent, ...taken?.as };
  const writtenAt = moved ?? whenTaken(sent.takenAt, context, said.openedAt);
  const takenAt = taken?.at ?? writtenAt;
  const round = taken ? said : await roundOfReading(db, said, input.point, takenAt);
  await refuseOutOfTime(db, round, writtenAt);
  const sheet = effectiveSheet(await findRevision(db, build.revisionId), build);
  const touched = round.kind === 'proved' ? await changesAt(db, build.id, input.point) : [];
  const limits = limitsAt(sheet, input.point, heldAgainst(round.kind, input.point, touched));
  if (input.beforeLock) refuseNoLock(round, sheet, input.point);
  // the figures are kept as they were felt; what a hollow makes of them is judged by what is known whenever it is asked
  const interval = intervalOf(input.reading as Reading);
  const hollow = !input.narrowBlade && (await hollowsOf(db, build.id, sheet)).has(input.point);
  const { verdict, onLimit } = judge(intervalOf(input.reading as Reading, hollow), limits);
  await refuseOtherTool(db, input.instrumentId);
  if (saysOtherwise(input.asTyped, input.reading as Reading)) throw new Refusal('typed_otherwise');
  const earlier: CurrentReading | undefined = await db('readings as g')
    .join('people as p', 'p.id', 'g.by')
    .where({ round_id: round.id, point: input.point, superseded: false })
    .first('g.id', 'p.name as by', 'g.by as personId', 'g.taken_at as takenAt', 'g.reading');
  const firstLook = input.blind ? await firstLookOf(db, round.id, input.point, takenAt, context) : null;
  // one from the future, of when a clock was wrong, gives way to whatever comes
  const late = earlier !== undefined && !taken && takenAt < earlier.takenAt && !isAhead(earlier.takenAt);
  if (earlier && !late) await db('readings').where({ id: earlier.id }).update('superseded', true);
  await db('readings').insert({
    id: context.key,
    round_id: round.id,
    revision_id: build.revisionId,
    point: input.point,
    reading: JSON.stringify(input.reading),
    as_typed: input.asTyped,
    lo: interval.lo,
    hi: interval.hi,
    min_tenths: limits?.min ?? null,
    max_tenths: limits?.max ?? null,
    allow_over_tenths: limits?.allowOver ?? 0,
    narrow_blade: input.narrowBlade,
    verdict,
    on_limit: onLimit,
    doubt_kept: input.doubtKept,
    crank_angle: input.crankAngle,
    off_base: input.crankAngle !== null && !mayMeasurePoint(sheet.pattern, input.point, input.crankAngle),
    by: context.personId,
    supersedes: late ? null : (earlier?.id ?? null),
    crosses: earlier && isCrossed(earlier, input, context.personId, late) ? earlier.id : null,
    superseded: late,
    reason: input.reason || (late ? LATE : whyAgain(earlier, input, context.personId)),
    instrument_id: input.instrumentId,
    taken_at: takenAt,
    blind: input.blind,
    before_lock: input.beforeLock,
    first_look: firstLook,
  });
  // the figure the engine had run when it was measured, not when the round was opened
  const { build: at } = round;
  const here = measuredAt(at.job, round.kind) === at.stage;
  if (here && !round.closedAt && round.usage !== round.running)
    await db('rounds').where({ id: round.id }).update({ usage: round.running });
  const [row] = await readReadings(db, (query) => query.where('g.id', context.key), 'all');
  const reopened = round.kind === 'recheck' && round.closedAt && !late ? await reopenRecheck(db, round) : [];
  const against = round.kind === 'recheck' ? [] : await holdAgainstSignature(db, build);
  const own: BuildRowChange = { kind: 'reading', row: row! };
  return written(build, own, ...reopened, ...against);
}

/**
 * The round that a reading belongs to: the one it was said to be of, unless gaps are found and set in one lap. There the moment it was
 * taken decides: somebody may have set the point before, which the device that read it did not know; or after, as a paper says.
 */
async function roundOfReading(
  db: Knex,
  said: LockedRound,
  point: string,
  takenAt: Date,
): Promise<LockedRound> {
  const { build, kind } = said;
  const at = measuredAt(build.job, kind);
  if (!['as-found', 'as-set'].includes(kind) || at === null || !setsAsFound(build.job, at)) return said;
  const settings = await changesAt(db, build.id, point);
  const ticks = (await db('stage_ticks')
    .where({ build_id: build.id })
    .select('stage', 'check_key as check', 'done', 'at')) as (Omit<CheckState, 'at'> & { at: Date })[];
  const before = {
    sheet: await findRevision(db, build.revisionId),
    settings: settings.filter((each) => new Date(each.at) <= takenAt),
    ticks: ticks.filter((tick) => tick.at <= takenAt).map((tick) => ({ ...tick, at: tick.at.toISOString() })),
  };
  const of = kindInLap(before, point);
  // of a point that nobody is known to have set, whoever says that it was set knows better
  if (of === kind || (of === 'as-found' && settings.length === 0)) return said;
  const other = await db('rounds')
    .where({ build_id: build.id, kind: of })
    .where('opened_at', '<=', takenAt)
    .orderBy('number', 'desc')
    .first('id');
  return other ? roundOf(db, build, other.id) : said;
}

/** What was done at a point of a build, the last first. */
const changesAt = (db: Knex, buildId: string, point: string): Promise<SettingState[]> =>
  db('settings')
    .where({ build_id: buildId, point, taken_back_at: null })
    .orderBy('at', 'desc')
    .select('point', 'kind', 'at', 'cause');

/** Refuses a reading said to be taken before a lock nut was tightened, where none is tightened. */
function refuseNoLock({ kind }: LockedRound, sheet: Pick<SheetRevision, 'pattern'>, point: string): void {
  const means = meansFor(sheet.pattern, pointAt(sheet, point).role).kind;
  if (kind === 'as-set' && (means === 'screw' || means === 'pivot-nut')) return;
  throw new Refusal('other_means', {
    detail: `Nothing is locked at ${point} here: a reading before locking is taken where a screw or a nut is set.`,
    fields: [{ path: 'beforeLock', message: 'nothing is locked here' }],
  });
}

/** Refuses what was taken when its round was not measured in, or not any more: what was taken while it was is evidence of then. */
async function refuseOutOfTime(
  db: Knex,
  { kind, closedAt, build }: LockedRound,
  takenAt: Date,
): Promise<void> {
  const key = measuredAt(build.job, kind);
  if (closedAt && takenAt >= closedAt) throw new Refusal('round_closed');
  if (key === null) throw new Refusal('wrong_stage');
  await takeLate(db, build, key, takenAt, [closedAt ? 'round_closed' : 'wrong_stage']);
}

/**
 * What a blind look is held against: what was found there by whoever saw what they did, however many looked blind since.
 *
 * @throws Refusal `own_second` where one of the looks there was their own
 */
async function firstLookOf(
  db: Knex,
  roundId: string,
  point: string,
  takenAt: Date,
  { personId }: WriteContext,
): Promise<string | null> {
  const looks = await db('readings')
    .where({ round_id: roundId, point })
    .where('taken_at', '<=', takenAt)
    .orderBy([{ column: 'taken_at', order: 'desc' }])
    .select('id', 'blind', 'by');
  const first = looks.findIndex(({ blind }) => !blind);
  const seen = first < 0 ? looks : looks.slice(0, first + 1);
  if (seen.some(({ by }) => by === personId)) throw new Refusal('own_second');
  return first < 0 ? null : looks[first]!.id;
}

/** Why a reading stands in the place of an earlier one: a second look, two hands at once, or simply again. */
function whyAgain(
  earlier: CurrentReading | undefined,
  input: z.output<typeof newReading>,
  personId: string,
): string {
  if (!earlier) return '';
  if (input.blind) return 'second look, without seeing the first';
  if (isCrossed(earlier, input, personId, false)) return `written while ${earlier.by} wrote this point too`;
  return 'measured again';
}

/**
 * Whether a reading was written without seeing the one that stood there, of somebody else; a blind look is meant to be, and what was
 * struck out is no reading to choose.
 */
function isCrossed(
  earlier: CurrentReading,
  { blind, over, reading }: z.output<typeof newReading>,
  personId: string,
  late: boolean,
): boolean {
  const unseen = late || (over !== undefined && over !== earlier.id);
  const withdrawn = isWithdrawal(reading) || isWithdrawal(earlier.reading as Reading);
  return unseen && !blind && !withdrawn && earlier.personId !== personId;
}

/**
 * A reading of a point that a person takes of two, as it was read: whoever takes it later measured nothing then.
 *
 * @throws Refusal `not_found` where it is none of this point in this round
 */
async function readingTaken(db: Knex, roundId: string, id: string, point: string) {
  const row = await db('readings').where({ id, round_id: roundId, point }).first();
  if (!row) throw new Refusal('not_found', { detail: 'There is no such reading of this point.' });
  return {
    at: row.taken_at,
    as: {
      reading: parseReading(row.format, row.reading) as z.output<typeof newReading>['reading'],
      ...{ asTyped: row.as_typed, narrowBlade: row.narrow_blade, beforeLock: row.before_lock },
      ...{ crankAngle: row.crank_angle, instrumentId: row.instrument_id, doubtKept: row.doubt_kept },
    },
  };
}

const LATE = 'taken before the one that stands, and came in after it';

async function refuseOtherTool(db: Knex, instrumentId: string | null): Promise<void> {
  if (instrumentId === null) return;
  const tool = await db('instruments').where({ id: instrumentId }).first('kind', 'name');
  if (!tool) throw new Refusal('not_found', { detail: 'There is no such instrument.' });
  if (!TAKES_GAPS.has(tool.kind))
    throw new Refusal('invalid', {
      detail: `No gap is measured with ${tool.name}.`,
      fields: [{ path: 'instrumentId', message: 'measures no gap' }],
    });
}

/** What a gap is measured with. */
const TAKES_GAPS: ReadonlySet<string> = new Set(['blade-set', 'indicator', 'digital-gauge']);
