import { doubtSequence } from '@zero-lash/core/assembly';
import { tenthsFromMm } from '@zero-lash/core/length';
import { isDayOfYear, isEmptyStep } from '@zero-lash/core/rechecks';
import { lashPoints } from '@zero-lash/core/sheets';
import { doubtLimit, LIMIT_KINDS, type LimitKey } from '@zero-lash/core/wear';
import { z } from 'zod';
import {
  day,
  id,
  limitMm,
  line,
  moment,
  remark,
  remarks,
  thicknessMm,
  usage,
  usageUnit,
  version,
} from './values.ts';

const degrees = z.number().min(0).max(719.999);
/** Degrees after a cylinder's own firing TDC, a whole cycle early or late at the most. */
const brakeAngle = z.number().min(-720).max(1440);
const ratio = z.number().min(0.5).max(4);
const few = (most: number) => z.int({ abort: true }).min(1, { abort: true }).max(most, { abort: true });
const pitch = z.number().min(0.2).max(3);
const torque = z.number().positive().max(500).nullable();

export const role = z.enum(['intake', 'exhaust', 'intake-closing', 'exhaust-closing', 'brake']);

const sizes = z
  .object({ from: thicknessMm, to: thicknessMm, step: z.number().min(0.005).max(1) })
  .refine(({ from, to }) => from <= to, {
    path: ['to'],
    error: 'the thickest is not below the thinnest',
  });
const stampedIn = z.enum(['mm', 'in']).default('mm');
const locking = z.enum(['lock-nut', 'self-locking']);

export const means = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('screw'),
    end: z.enum(['valve', 'pushrod']),
    pitch,
    rockerRatio: ratio,
    locking,
    torqueNm: torque,
  }),
  z.object({ kind: z.literal('pivot-nut'), pitch, rockerRatio: ratio, locking, torqueNm: torque }),
  z.object({
    kind: z.literal('shim'),
    seat: z.enum(['on-bucket', 'under-bucket', 'under-finger']),
    sizes,
    diameter: z.number().min(3).max(60),
    marking: remark(120),
    stampedIn,
    seatOffset: z.number().min(0).max(20).nullable(),
    /** of a finger: valve arm over cam arm */
    rockerRatio: ratio.optional(),
  }),
  z.object({ kind: z.literal('bucket'), sizes, marking: remark(120), stampedIn }),
  z.object({ kind: z.literal('lash-cap'), sizes, marking: remark(120), stampedIn }),
]);

const cylinder = z.object({
  id: z.string().regex(/^[A-Z]?\d{1,2}$/, { error: 'a cylinder is named by a number, such as 1' }),
  bank: z.enum(['A', 'B']),
  place: z.int().min(1).max(12),
  firesAt: degrees,
});

export const pattern = z
  .object({
    layout: z.enum(['single', 'inline', 'v', 'flat']),
    bankAngle: z.number().min(10).max(180).nullable(),
    cylinders: z.array(cylinder).min(1).max(12),
    turns: z.enum(['clockwise', 'anticlockwise']),
    seenFrom: z.enum(['front', 'flywheel']),
    // a number that nothing has is no question of what follows from it: it ends here
    valves: z.object({ intake: few(3), exhaust: few(2) }),
    bridges: z.object({ intake: z.boolean(), exhaust: z.boolean() }),
    bridgeKind: z.enum(['plain', 'guided']).default('plain'),
    closingSide: z.boolean(),
    brakes: z
      .array(
        z
          .object({ cylinder: z.string().max(3), opens: brakeAngle, closes: brakeAngle })
          .refine(({ opens, closes }) => closes > opens && closes - opens < 720, {
            path: ['closes'],
            error: 'the brake rocker closes after it opens, within one cycle',
          }),
      )
      .max(12),
    exhaustSide: z.enum(['left', 'right']),
    timing: z.object({
      ivoBtdc: z.number().min(-40).max(90),
      ivcAbdc: z.number().min(-20).max(110),
      evoBbdc: z.number().min(-20).max(110),
      evcAtdc: z.number().min(-40).max(90),
      assumed: z.boolean(),
      /** mm of lift at which it was given; nothing at the seat, or where the source does not say */
      lift: z.number().positive().max(3).nullable().default(null),
    }),
    turnsBack: z.boolean().default(true),
    camDrive: z.enum(['chain', 'belt', 'gears', 'unsaid']).default('unsaid'),
    /** what lifts a valve while the engine is cranked; degrees after its cylinder's firing TDC */
    decompressor: z
      .object({ role: z.enum(['intake', 'exhaust']), opens: brakeAngle, closes: brakeAngle })
      .refine(({ opens, closes }) => closes > opens && closes - opens < 720, {
        path: ['closes'],
        error: 'the decompressor lets go after it lifts, within one cycle',
      })
      .nullable()
      .default(null),
    /** the maker's own table: the crank's place, and the points measured there */
    makersStops: z
      .array(z.object({ angle: degrees, points: z.array(z.string().max(12)).min(1).max(120) }))
      .max(48)
      .default([]),
    margin: z.number().min(0).max(60),
    marks: z.array(degrees).min(1).max(72),
    means,
    roleMeans: z.partialRecord(role, means),
  })
  .superRefine((value, context) => {
    const complain = (path: (string | number)[], message: string) =>
      context.addIssue({ code: 'custom', path, message });
    const names = value.cylinders.map(({ id: name }) => name);
    names.forEach((name, index) => {
      if (names.indexOf(name) !== index)
        complain(['cylinders', index, 'id'], `cylinder ${name} is there twice`);
    });
    const seats = value.cylinders.map(({ bank, place }) => `${bank}${place}`);
    seats.forEach((seat, index) => {
      if (seats.indexOf(seat) !== index)
        complain(['cylinders', index, 'place'], 'two cylinders stand in one place');
    });
    value.brakes.forEach((brake, index) => {
      if (value.brakes.findIndex(({ cylinder: other }) => other === brake.cylinder) !== index)
        complain(['brakes', index, 'cylinder'], `cylinder ${brake.cylinder} has a brake rocker already`);
      if (!names.includes(brake.cylinder))
        complain(['brakes', index, 'cylinder'], `there is no cylinder ${brake.cylinder}`);
    });
    const points = new Set(lashPoints(value).map(({ key }) => key));
    value.makersStops.forEach(({ angle, points: listed }, index) => {
      const strange = listed.find((key) => !points.has(key));
      if (strange) complain(['makersStops', index, 'points'], `there is no point ${strange}`);
      if (value.makersStops.findIndex((other) => other.angle === angle) !== index)
        complain(['makersStops', index, 'angle'], `${angle}° is there twice`);
    });
    const all = value.makersStops.flatMap((stop) => stop.points);
    const twice = all.find((key, index) => all.indexOf(key) !== index);
    if (twice) complain(['makersStops', 0, 'points'], `${twice} is there twice`);
    if (value.layout === 'v' && value.bankAngle === null)
      complain(['bankAngle'], 'a V engine needs the angle between its banks');
    const banks = new Set(value.cylinders.map(({ bank }) => bank)).size;
    if (['single', 'inline'].includes(value.layout) && banks > 1)
      complain(['layout'], 'this layout has one bank only');
    if (value.layout === 'single' && names.length > 1) complain(['cylinders'], 'a single has one cylinder');
  });

/** Limits of one role in mm, with what the source's own page says. */
export const roleLimits = z
  .object({ role, min: limitMm, max: limitMm, asWritten: remark(40) })
  .refine(({ min, max }) => tenthsFromMm(min) < tenthsFromMm(max), {
    path: ['max'],
    error: 'the greatest clearance must be above the least, by a tenth of a micrometre or more',
  });
export type RoleLimits = z.infer<typeof roleLimits>;

const dayOfYear = z.string().refine(isDayOfYear, { error: 'is no day of the year' }).nullable().default(null);

/** When to look again, whichever is first, and at which points. */
export const recheckStep = z
  .object({
    afterUsage: usage.positive().nullable(),
    afterDays: z.int().min(1).max(3650).nullable(),
    afterCycles: z.int().min(1).max(10_000).nullable().default(null),
    /** a day of the year, month and day: it is looked at before that */
    before: dayOfYear,
    /** the last day of the season that begins then; none where nobody says */
    until: dayOfYear,
    /** what begins on that day, in the shop's words */
    season: remark(40).default(''),
    /** the points that a short look takes; none for every point */
    points: z.array(line(12)).max(200).default([]),
  })
  .refine((step) => !isEmptyStep(step), { error: 'a recheck needs running, days, heat cycles or a season' })
  .refine(({ before, until }) => before !== null || until === null, {
    path: ['before'],
    error: 'a season that ends has a first day',
  });

/** What is looked at when, step by step; the last one repeats. */
export const recheckPlan = z.array(recheckStep).min(1).max(12);
export type RecheckPlan = z.infer<typeof recheckPlan>;

export const source = z.object({
  manual: line(120),
  edition: remark(60),
  page: remark(40),
});

/** What wears, and is held against a limit while the head is open. */
export const wearPart = z.enum(Object.keys(LIMIT_KINDS) as [LimitKey, ...LimitKey[]]);

const figure = z.number().min(0).max(100_000);
const perhaps = figure.nullable().default(null);

const limitFields = z.object({
  part: wearPart,
  /** intake or exhaust, where they differ */
  of: z.enum(['intake', 'exhaust', 'both']),
  /** a cylinder or a place it is meant for alone; empty for all */
  place: remark(20).default(''),
  nominal: perhaps,
  limit: perhaps,
  /** of what has a band: the least and the greatest */
  min: perhaps,
  max: perhaps,
  unit: z.enum(['mm', 'N', '%', 'bar']),
  source: remark(120).default(''),
});

/** What holds a limit together: its own two ends, and the side it wears to. */
function holdsTogether(
  limit: z.output<typeof limitFields>,
  context: z.core.$RefinementCtx<z.output<typeof limitFields>>,
): void {
  const complaint = doubtLimit(limit);
  const path = LIMIT_KINDS[limit.part].form === 'band' ? 'max' : 'limit';
  if (complaint) context.addIssue({ code: 'custom', path: [path], message: complaint });
  if (limit.unit !== LIMIT_KINDS[limit.part].unit)
    context.addIssue({
      code: 'custom',
      path: ['unit'],
      message: `this is given in ${LIMIT_KINDS[limit.part].unit}`,
    });
}

/** One wear limit: with the nominal figure where the source gives one, or a band. */
export const wearLimit = limitFields.superRefine(holdsTogether);
export type WearLimit = z.infer<typeof wearLimit>;
export { limitFields, holdsTogether };

const MOST_ROWS = 6;

/** How a fastening is tightened: its torques step by step, where its bolts stand, and in which order. */
export const torqueFigure = z
  .object({
    fastening: line(60),
    steps: line(60),
    order: remark(160),
    /** bolts in each row along the head, the near row first; empty where the sheet does not show them */
    rows: z
      .array(z.int().min(1).max(20, { error: 'no row has over 20 bolts' }))
      .max(MOST_ROWS, { error: 'no head has over 6 rows of bolts' })
      .default([]),
    /** the maker's order: numbers of the bolts, counted from the front, row by row; empty where none is given */
    sequence: z.array(z.int()).max(120).default([]),
  })
  .superRefine(({ rows, sequence }, context) => {
    const complaint = doubtSequence(rows, sequence);
    if (complaint) context.addIssue({ code: 'custom', path: ['sequence'], message: complaint });
  });
export type TorqueFigure = z.infer<typeof torqueFigure>;

/** Something to have at hand before the engine is opened: a spare, a gasket or seal, a tool. */
export const wantedPart = z.object({
  name: line(60),
  count: z.int().min(1, { error: 'at least one' }).max(99, { error: 'nobody wants a hundred' }),
  kind: z.enum(['seal', 'spare', 'tool']),
});

const mmOfChart = z.number().min(0).max(25, { error: 'no clearance is over 25 mm' });
const MOST_ACROSS = 80;

/** A chart of pieces as the maker prints it for one role: gaps measured down, pieces fitted now across; mm. */
export const pieceChart = z
  .object({
    role,
    installed: z.array(thicknessMm).min(1).max(MOST_ACROSS),
    rows: z
      .array(
        z.object({
          from: mmOfChart,
          to: mmOfChart,
          /** the piece to fit, `keep`, or nothing where the maker prints none */
          pieces: z.array(z.union([thicknessMm, z.literal('keep'), z.null()])).max(MOST_ACROSS),
        }),
      )
      .min(1)
      .max(80),
  })
  .superRefine(({ installed, rows }, context) => {
    rows.forEach(({ from, to, pieces }, index) => {
      if (from >= to)
        context.addIssue({ code: 'custom', path: ['rows', index, 'to'], message: 'must be above from' });
      if (pieces.length !== installed.length)
        context.addIssue({
          code: 'custom',
          path: ['rows', index, 'pieces'],
          message: 'needs a piece under each that is fitted now',
        });
    });
  });

/** One thing a sheet says of putting an engine together: cams told apart, links counted, caps by their arrows. */
export const assemblyStep = z.object({
  text: line(160),
  /** it may not be skipped: the engine is not turned for its proof before it is ticked */
  hold: z.boolean().default(false),
});

/** What an engine goes through before it is signed off: run hot and left to go cold, and its head torqued again where that is asked for. */
export const runIn = z
  .object({ heatCycles: z.int().min(0).max(20, { error: 'at most 20' }), retorque: z.boolean() })
  .refine(({ heatCycles, retorque }) => !retorque || heatCycles > 0, {
    path: ['heatCycles'],
    error: 'the head is torqued again after a heat cycle or more',
  });

/** What a spec sheet says, field by field. */
export const sheetFields = z.object({
  pattern,
  condition: z.enum(['cold', 'hot']),
  temperature: z
    .object({ from: z.number().min(-40).max(200), to: z.number().min(-40).max(200) })
    .refine(({ from, to }) => from < to, { path: ['to'], error: 'must be above from' })
    .nullable(),
  limits: z.array(roleLimits).min(1),
  wearLimits: z.array(wearLimit).max(120).default([]),
  torques: z.array(torqueFigure).max(40).default([]),
  wanted: z.array(wantedPart).max(40).default([]),
  /** what the maker prints of pieces: it governs a plan */
  pieceCharts: z.array(pieceChart).max(5).default([]),
  assembly: z.array(assemblyStep).max(40).default([]),
  runIn: runIn.default({ heatCycles: 0, retorque: false }),
  usageUnit,
  recheckPlan,
  source,
  notes: remarks(2000),
});

/** Points that a plan names and the head does not have: where they stand in the plan, from 0. */
export function strangePoints(
  plan: readonly { readonly points: readonly string[] }[],
  keys: ReadonlySet<string>,
): readonly { readonly step: number; readonly point: string }[] {
  return plan.flatMap(({ points }, step) =>
    points.filter((point) => !keys.has(point)).map((point) => ({ step, point })),
  );
}

/** What holds a sheet together: its plan names points of its own head. */
function namesItsPoints(
  { pattern: head, recheckPlan: plan }: Pick<z.output<typeof sheetFields>, 'pattern' | 'recheckPlan'>,
  context: z.core.$RefinementCtx,
): void {
  const keys = new Set(lashPoints(head).map(({ key }) => key));
  for (const { step, point } of strangePoints(plan, keys))
    context.addIssue({
      code: 'custom',
      path: ['recheckPlan', step, 'points'],
      message: `there is no point ${point} on this head`,
    });
}

/** What a spec sheet says; the part that a published revision never changes. */
export const sheetBody = sheetFields.superRefine(namesItsPoints);
export type SheetBody = z.infer<typeof sheetBody>;

export const sheetRevision = sheetFields.extend({
  id,
  sheetId: id,
  name: line(80),
  maker: line(60),
  number: z.int().min(1),
  status: z.enum(['draft', 'published']),
  enteredBy: z.string(),
  checkedBy: z.string().nullable(),
  publishedAt: moment.nullable(),
  version,
});
export type SheetRevision = z.infer<typeof sheetRevision>;

const named = { name: line(80), maker: line(60) };

export const newSheet = z.object({ ...named, body: sheetBody });
export type NewSheet = z.infer<typeof newSheet>;

/** A change to a draft; a draft of a sheet that was published keeps the sheet's name. */
export const draftChange = z.object({ ...named, body: sheetBody, version });
export type DraftChange = z.infer<typeof draftChange>;

/** A draft is published as it was read: one that was changed since is read again first. */
export const publication = z.object({ version });

/** A new revision of a published sheet, a draft at first. */
export const newRevision = z.object({ body: sheetBody });

/** A sheet as it is written to a file and read from one. */
export const sheetFile = z
  .object({
    format: z.literal('zero-lash-sheet', { error: 'this is not a Zero Lash spec sheet' }),
    formatVersion: z.literal(1, { error: 'this file was written by a newer Zero Lash' }),
    ...named,
    ...sheetFields.shape,
  })
  .superRefine(namesItsPoints);
export type SheetFile = z.infer<typeof sheetFile>;

/** A sheet in a list: its newest published revision, or its draft where there is none. */
export const sheetSummary = z.object({
  id,
  revisionId: id,
  name: z.string(),
  maker: z.string(),
  number: z.int(),
  status: z.enum(['draft', 'published']),
  /** a newer revision is being written */
  drafting: z.boolean(),
  layout: z.string(),
  cylinders: z.int(),
  points: z.int(),
  means: z.string(),
  condition: z.enum(['cold', 'hot']),
  usageUnit,
  manual: z.string(),
  engines: z.int(),
  updatedOn: day,
});
export type SheetSummary = z.infer<typeof sheetSummary>;
