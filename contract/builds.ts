import { AFTER_RECHECK, jobAsked, jobOf } from '@zero-lash/core/builds';
import { z } from 'zod';
import { headWorkEntry } from './headwork.ts';
import { knowHowRow } from './knowHow.ts';
import { conditionsRow, readingRow, round, roundRow } from './measuring.ts';
import { ledgerEntry, patternPartsRow } from './parts.ts';
import { photographRow } from './photographs.ts';
import { ranEntry } from './ran.ts';
import { pastRecheck } from './rechecks.ts';
import { aim, allowOver, ownAim, ownAims, provesAgain, setting, singleRule } from './setting.ts';
import { jobKey, stageKey } from './stages.ts';
import { turningRow } from './turning.ts';
import { limitMm, whyAtLength } from './bounded.ts';
import { role } from './pattern.ts';
import { day, id, line, moment, passage, putAway, remark, takenAt, usageUnit, version } from './values.ts';
import { wearEntry } from './wear.ts';

const complaint = remark(300);

export const newBuild = z
  .object({
    revisionId: id,
    /** the whole of it where it is left out; what a recheck found is set again */
    job: jobKey.optional(),
    complaint,
    /** the recheck whose finding is set again, whether it held or not: it is carried over, and the build begins at Set */
    recheckId: id.optional(),
  })
  .refine((asked) => asked.complaint !== '' || jobOf(jobAsked(asked)).complaint === 'optional', {
    path: ['complaint'],
    error: 'say in a line what the engine is here for',
  })
  .refine((asked) => jobOf(jobAsked(asked)).opened !== 'last-checked', {
    path: ['job'],
    error: 'an engine in service is written down with when it was last checked',
  })
  .refine((asked) => (jobAsked(asked) === AFTER_RECHECK) === (asked.recheckId !== undefined), {
    path: ['job'],
    error: 'an engine is set again for what a recheck found, and for nothing else',
  });
export type NewBuild = z.infer<typeof newBuild>;

/** The larger job that a build becomes, because something was found. */
export const largerJob = z.object({ version, job: jobKey });
export type LargerJob = z.infer<typeof largerJob>;

export const stageMoveRequest = z.object({ to: stageKey, version });
export const tickRequest = z.object({ stage: stageKey, check: line(40), done: z.boolean(), takenAt });
export type TickRequest = z.input<typeof tickRequest>;
export const noteRequest = z.object({ stage: stageKey, text: passage(1000), takenAt });
export type NoteRequest = z.input<typeof noteRequest>;

/** The revision that a build goes over to which was opened before its book was here. */
export const newerRevision = z.object({ version, revisionId: id });
export type NewerRevision = z.infer<typeof newerRevision>;

/** A build opened by mistake is put out of the way, and may be brought back. */
export const abandonRequest = z.object({ version, why: whyAtLength(200) });
export type AbandonRequest = z.infer<typeof abandonRequest>;
export const restoreRequest = z.object({ version });

export const buildChange = z
  .object({
    version,
    complaint,
    aim,
    /** what is aimed at, where that is the shop's own */
    ownAims: z.array(ownAim).min(1).max(8).optional(),
    aimReason: remark(300).default(''),
  })
  .refine((change) => change.aim !== 'own' || change.ownAims !== undefined, {
    path: ['ownAims'],
    error: 'say what is aimed at',
  });
export type BuildChange = z.input<typeof buildChange>;

/** What an engine that is measured hot, and cannot be run, is set to cold; null where it can be run after all. */
export const setColdRequest = z.object({
  version,
  setCold: z
    .object({
      /** of the roles that the sheet prints no cold figure for; mm */
      figures: z.array(z.object({ role, min: limitMm, max: limitMm })).max(8),
      why: whyAtLength(200),
    })
    .nullable(),
});
export type SetColdRequest = z.infer<typeof setColdRequest>;

/** How it is set cold, and who stands for it; mm. */
export const setCold = z.object({
  figures: z.array(
    z.object({
      ...{ role, min: z.number(), max: z.number(), figure: z.number().nullable() },
      ...{ asWritten: z.string(), provisional: z.boolean() },
    }),
  ),
  foundHot: z.boolean(),
  why: z.string(),
  by: z.string(),
});

/** A build itself: where it stands, on what, and how often anything in it was written. */
export const buildHead = z.object({
  id,
  number: z.int(),
  job: jobKey,
  stage: stageKey,
  complaint: z.string(),
  aim,
  /** figures of the shop's own that were once said for it; they hold where the aim is its own */
  ownAims: ownAims.nullable(),
  /** as the shop had it when the build was opened */
  provesAgain,
  /** a screw's reading after locking stands where two turns follow without resistance */
  lockedStands: z.boolean(),
  /** after so many hours the engine is cold, where its sheet does not say */
  coldHours: z.int(),
  allowOver,
  /** the band round one figure of the sheet, as the shop had it then; null where it goes by the usual one */
  singleRule,
  /** an engine that is measured hot and cannot be run is set cold; null where it is measured as its sheet says */
  setCold: setCold.nullable(),
  version,
  openedAt: moment,
  openedBy: z.string(),
  closedAt: moment.nullable(),
  abandoned: putAway.nullable(),
  revisionId: id,
  /** the recheck whose finding was carried over; null in a build that began with taking the engine in */
  carried: z.object({ buildId: id, number: z.int(), sequence: z.int() }).nullable(),
  engine: z.object({
    id,
    name: z.string(),
    usageUnit,
    /** as the meter shows it, and as it ran in all */
    usage: z.number(),
    running: z.number(),
    heatCycles: z.int(),
  }),
  /** when an engine in service was last checked, at what it had run by then, and by whom; null in every other build */
  lastChecked: z.object({ on: day, usage: z.number(), by: z.string() }).nullable(),
  signOff: z
    .object({
      by: z.string(),
      at: moment,
      usage: z.number(),
      statement: z.string(),
      /** points that a lead let stand as they were */
      accepted: z.array(z.string()),
    })
    .nullable(),
  /** what was done before it was signed off, and came in after: the last that came first */
  late: z.array(
    z.object({
      what: z.enum(['reading', 'setting', 'wear', 'headwork', 'ledger']),
      point: z.string().nullable(),
      /** a reading as it was typed with what it was judged to be, or how a point was set */
      said: z.string(),
      by: z.string(),
      takenAt: moment,
      cameAt: moment,
    }),
  ),
});
export type BuildHead = z.infer<typeof buildHead>;

/** A check of a stage as it was last ticked or unticked. */
export const tickRow = z.object({
  stage: stageKey,
  check: z.string(),
  done: z.boolean(),
  by: z.string(),
  at: moment,
  /** when it was ticked before, and taken back since, the first one first */
  earlier: z.array(moment).optional(),
  /** who ticked it then; null where nobody kept it */
  earlierBy: z.array(z.string().nullable()).optional(),
});
export type TickRow = z.infer<typeof tickRow>;

export const noteRow = z.object({ id, stage: stageKey, text: z.string(), by: z.string(), at: moment });
export type NoteRow = z.infer<typeof noteRow>;

/**
 * Every room of a build: the rows that it answers with, and the kinds of row that a write in it brings. A new room is a row here, one in
 * the server's table of rooms, and one in the page's.
 */
const ROOMS = {
  head: { rows: buildHead, kinds: { head: buildHead } },
  rounds: {
    rows: z.array(round),
    kinds: { round: roundRow, reading: readingRow, conditions: conditionsRow, turning: turningRow },
  },
  settings: { rows: z.array(setting), kinds: { setting } },
  ticks: { rows: z.array(tickRow), kinds: { tick: tickRow } },
  notes: { rows: z.array(noteRow), kinds: { note: noteRow } },
  rechecks: { rows: z.array(pastRecheck), kinds: { recheck: pastRecheck } },
  wear: { rows: z.array(wearEntry), kinds: { wear: wearEntry } },
  headwork: { rows: z.array(headWorkEntry), kinds: { headwork: headWorkEntry } },
  ledger: { rows: z.array(ledgerEntry), kinds: { ledger: ledgerEntry } },
  ran: { rows: z.array(ranEntry), kinds: { ran: ranEntry } },
  photographs: { rows: z.array(photographRow), kinds: { photograph: photographRow } },
  'know-how': { rows: z.array(knowHowRow), kinds: { 'know-how': knowHowRow } },
  'pattern-parts': { rows: z.array(patternPartsRow), kinds: { 'pattern-parts': patternPartsRow } },
};
type Rooms = typeof ROOMS;

/** A room of a build, which is read by itself. */
export type BuildRoom = keyof Rooms;
/** The kinds of row that a write in a room brings. */
export type KindsOf<Room extends BuildRoom> = keyof Rooms[Room]['kinds'] & string;
/** A kind of row that a write in a build brings. */
export type ChangeKind = { [Room in BuildRoom]: KindsOf<Room> }[BuildRoom];
/** The room that a kind of row belongs to. */
export type RoomOfKind<Kind extends ChangeKind> = {
  [Room in BuildRoom]: Kind extends KindsOf<Room> ? Room : never;
}[BuildRoom];
/** What a room answers with. */
export type RowsOf<Room extends BuildRoom> = z.infer<Rooms[Room]['rows']>;
/** The rows of every room of a build, but the build itself. */
export type BuildParts = { readonly [Part in Exclude<BuildRoom, 'head'>]: RowsOf<Part> };
type SchemaOf<Kind extends ChangeKind> = {
  [Room in BuildRoom]: Kind extends keyof Rooms[Room]['kinds'] ? Rooms[Room]['kinds'][Kind] : never;
}[BuildRoom];
/** A row of a kind. */
export type RowOf<Kind extends ChangeKind> = z.infer<Extract<SchemaOf<Kind>, z.ZodType>>;

/** What a room answers with: its rows, and how many writes the build had seen when they were read. */
export const BUILD_ROOMS = Object.fromEntries(
  Object.entries(ROOMS).map(([room, { rows }]) => [room, z.object({ seq: z.int(), rows })]),
) as unknown as {
  readonly [Room in BuildRoom]: z.ZodObject<{ seq: z.ZodInt; rows: Rooms[Room]['rows'] }>;
};

/** One row that a write brought or changed; null where it is too large to be told: its room is read again. */
export type BuildRowChange = {
  [Kind in ChangeKind]: { kind: Kind; row: RowOf<Kind> | null };
}[ChangeKind];

const rowChanges = Object.values(ROOMS).flatMap(({ kinds }) =>
  Object.entries(kinds).map(([kind, row]: [string, z.ZodType]) =>
    z.object({ kind: z.literal(kind), row: row.nullable() }),
  ),
);
export const buildRowChange = z.discriminatedUnion(
  'kind',
  rowChanges as [(typeof rowChanges)[number], ...typeof rowChanges],
) as unknown as z.ZodType<BuildRowChange>;

/** What a write in a build answers with, and what everybody who looks at the build hears of it: its own row first. */
export const buildWrite = z.object({
  build: id,
  /** raised by one at every write in the build */
  seq: z.int(),
  changes: z.array(buildRowChange),
});
export type BuildWrite = z.infer<typeof buildWrite>;
