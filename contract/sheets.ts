import { sequenceComplaint, parseTorqueSteps } from '@zero-lash/core/assembly';
import { BOUNDS, impossible, saysSomething } from '@zero-lash/core/bounds';
import { tenthsFromMm } from '@zero-lash/core/length';
import { FIGURE_KEYS, lashPoints, rolesOf } from '@zero-lash/core/sheets';
import { picturesAt, pointsNeverClosed, stopsAt } from '@zero-lash/core/turning';
import { limitComplaint, LIMIT_KINDS, placesLimited, type LimitKey } from '@zero-lash/core/wear';
import { z } from 'zod';
import { pattern, role } from './pattern.ts';
import { OVER_TOO_MUCH } from './setting.ts';
import { recheckStep, strangePoints, NO_METER, stepsByRunning } from './recheckPlan.ts';
import { bounded, limitMm, thicknessMm } from './bounded.ts';
import { day, id, line, moment, remark, remarks, usageUnit, version } from './values.ts';

const UNDER_A_TENTH = 'the greatest clearance must be above the least, by a tenth of a micrometre or more';

/** A clearance as a source prints it: a pair, or one figure that has no ends of its own; mm. */
const printed = {
  min: limitMm.nullable(),
  max: limitMm.nullable(),
  /** the one figure, where it prints no more */
  figure: limitMm.nullable().default(null),
  /** as it stands there, units and brackets with it */
  asWritten: remark(60),
};

/** A pair or one figure, and never a bit of both; a pair is a band. */
function isPrinted(
  { min, max, figure }: { min: number | null; max: number | null; figure: number | null },
  context: z.core.$RefinementCtx,
): void {
  const complain = (path: string, message: string) =>
    context.addIssue({ code: 'custom', path: [path], message });
  if (figure !== null && (min !== null || max !== null))
    complain('figure', 'one figure or a pair, not both: the band round one figure is the shop’s');
  else if (figure !== null && tenthsFromMm(figure) < 1)
    complain('figure', 'one figure of nothing has no band: give the pair it lies in');
  else if (figure === null && (min === null || max === null))
    complain(min === null ? 'min' : 'max', 'a pair, or one figure');
  else if (min !== null && max !== null && tenthsFromMm(min) >= tenthsFromMm(max))
    complain('max', UNDER_A_TENTH);
  else if (min !== null && max !== null && impossible('band', max - min) !== null)
    complain('max', BOUNDS.band.over);
}

/** What else a source prints for a role: each at most once. */
export const alsoPrinted = z
  .object({ kind: z.enum(['leave', 'after-run-in', 'other-condition']), ...printed })
  .superRefine(isPrinted);

/** Limits of one role, as the source prints them. */
export const roleLimits = z
  .object({
    role,
    ...printed,
    also: z.array(alsoPrinted).max(3).default([]),
    /** what is taken over the greatest, and why; nothing where the sheet does not say and the shop's own rule stands */
    allowance: z
      .object({ over: z.number().min(0).max(0.1, { error: OVER_TOO_MUCH }), why: remark(120) })
      .refine(({ over, why }) => over === 0 || saysSomething(why), {
        path: ['why'],
        error: 'say why more than the greatest is taken',
      })
      .nullable()
      .optional(),
  })
  .superRefine(isPrinted)
  .superRefine(({ also }, context) => {
    also.forEach(({ kind }, index) => {
      if (also.findIndex((other) => other.kind === kind) !== index)
        context.addIssue({ code: 'custom', path: ['also', index, 'kind'], message: 'is there twice' });
    });
  });
export type RoleLimits = z.infer<typeof roleLimits>;

export const source = z.object({
  manual: line(120),
  edition: remark(60),
  page: remark(40),
});

/** A second source beside the first: what it prints, and why that was not taken. */
export const secondSource = source
  .extend({ figures: remark(200), whyNot: line(160) })
  .nullable()
  .default(null);

/** What wears, and is held against a limit while the head is open. */
export const wearPart = z.enum(Object.keys(LIMIT_KINDS) as [LimitKey, ...LimitKey[]]);

// a fit may be given as an interference: less than nothing
const figure = z.number().min(-10).max(100_000);
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
  /** its figures as they stand in the source, where that is in other units: new or the least, and the limit or the greatest */
  asTyped: z.object({ first: remark(30).optional(), last: remark(30).optional() }).optional(),
});

/** What holds a limit together: its own two ends, and the side it wears to. */
function holdsTogether(
  limit: z.output<typeof limitFields>,
  context: z.core.$RefinementCtx<z.output<typeof limitFields>>,
): void {
  const complaint = limitComplaint(limit);
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
  .superRefine(({ steps, rows, sequence }, context) => {
    const read = parseTorqueSteps(steps);
    // what cannot be read stands as the source writes it
    if ('error' in read && read.cannotBe)
      context.addIssue({ code: 'custom', path: ['steps'], message: read.error });
    const complaint = sequenceComplaint(rows, sequence);
    if (complaint) context.addIssue({ code: 'custom', path: ['sequence'], message: complaint });
  });
export type TorqueFigure = z.infer<typeof torqueFigure>;

/** Something to have at hand before the engine is opened: a spare, a gasket or seal, a tool. */
export const wantedPart = z.object({
  name: line(60),
  count: z.int().min(1, { error: 'at least one' }).max(99, { error: 'nobody wants a hundred' }),
  kind: z.enum(['seal', 'spare', 'tool']),
});

const mmOfChart = bounded('gap');
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

/** What an engine goes through before it is signed off: run hot and left to go cold, and its head tightened again where that is asked for. */
export const runIn = z
  .object({ heatCycles: z.int().min(0).max(20, { error: 'at most 20' }), retorque: z.boolean() })
  .refine(({ heatCycles, retorque }) => !retorque || heatCycles > 0, {
    path: ['heatCycles'],
    error: 'the head is tightened again after a heat cycle or more',
  });

const figureKey = z.enum(FIGURE_KEYS);

/** Where each figure is from that says so: its source, with a page of its own; whoever wrote the sheet; or the shop. */
const origins = z
  .partialRecord(
    figureKey,
    z.object({ from: z.enum(['source', 'assumed', 'shop']), page: remark(40).default('') }),
  )
  .default({});

/** As text, the largest picture of a position that a sheet holds: it goes wherever the sheet goes. */
export const MOST_PICTURE_TEXT = 90_000;
/** The most pictures of one sheet. */
export const MOST_PICTURES = 8;

/** A photograph or drawing of what is seen at a position: a mark of the pulley or flywheel, or how the cams stand. */
const positionPicture = z.object({
  /** crank degrees, 0 to under 720; a mark comes round twice */
  at: z.number().min(0).max(719.999),
  of: z.enum(['mark', 'cams']),
  /** what is seen, for who does not see it */
  says: line(120),
  /** base64 of a JPEG, small */
  file: z
    .base64()
    .min(8, { error: 'there is no picture in it' })
    .max(MOST_PICTURE_TEXT, { error: 'a picture of at most 65 kB goes on a sheet' }),
});

/** What a spec sheet says, field by field. */
export const sheetFields = z.object({
  pattern,
  condition: z.enum(['cold', 'hot']),
  temperature: z
    .object({
      from: bounded('temperature'),
      to: bounded('temperature'),
      /** as they stand in the source, where that is not in °C */
      asTyped: z.object({ from: remark(20), to: remark(20) }).optional(),
    })
    .refine(({ from, to }) => from < to, { path: ['to'], error: 'must be above from' })
    .nullable(),
  limits: z.array(roleLimits),
  /** the book that has them is not here yet: its engines are read, and nothing is judged, set or signed */
  limitsToCome: z.boolean().default(false),
  wearLimits: z.array(wearLimit).max(120).default([]),
  torques: z.array(torqueFigure).max(40).default([]),
  wanted: z.array(wantedPart).max(40).default([]),
  /** what the maker prints of pieces: it governs a plan */
  pieceCharts: z.array(pieceChart).max(5).default([]),
  assembly: z.array(assemblyStep).max(40).default([]),
  runIn: runIn.default({ heatCycles: 0, retorque: false }),
  /** what pressures, forces, torques and temperatures are shown in; null where that is the shop's */
  system: z.enum(['metric', 'inch']).nullable().default(null),
  usageUnit,
  /** empty where the source gives none: no recheck is planned by itself */
  recheckPlan: z.array(recheckStep).max(12),
  origins,
  source,
  secondSource,
  pictures: z.array(positionPicture).max(MOST_PICTURES).default([]),
  notes: remarks(2000),
});

/** What holds a sheet together: its plan and its limits name what its own head has, and every point of it can be measured. */
function namesItsPoints(
  {
    pattern: head,
    recheckPlan: plan,
    wearLimits,
    pictures,
    limits,
    limitsToCome,
    usageUnit: unit,
  }: Pick<
    z.output<typeof sheetFields>,
    'pattern' | 'recheckPlan' | 'wearLimits' | 'pictures' | 'limits' | 'limitsToCome' | 'usageUnit'
  >,
  context: z.core.$RefinementCtx,
): void {
  const limited = limits.map(({ role: of }) => of);
  for (const missing of limitsToCome ? [] : rolesOf(head).filter((each) => !limited.includes(each)))
    context.addIssue({ code: 'custom', path: ['limits'], message: `missing for ${missing}` });
  if (new Set(limited).size < limited.length)
    context.addIssue({ code: 'custom', path: ['limits'], message: 'a role is there twice' });
  const keys = new Set(lashPoints(head).map(({ key }) => key));
  for (const { step, point } of strangePoints(plan, keys))
    context.addIssue({
      code: 'custom',
      path: ['recheckPlan', step, 'points'],
      message: `there is no point ${point} on this head`,
    });
  for (const step of stepsByRunning(plan, unit))
    context.addIssue({
      code: 'custom',
      path: ['recheckPlan', step, 'afterUsage'],
      message: NO_METER,
    });
  pictures.forEach(({ at, of }, index) => {
    const there =
      of === 'cams'
        ? stopsAt(head, at)
        : head.marks.some((mark) => picturesAt([{ at, of }], mark).length > 0);
    if (!there)
      context.addIssue({
        code: 'custom',
        path: ['pictures', index, 'at'],
        message: of === 'mark' ? `there is no mark at ${at}°` : `nothing is stopped at ${at}°`,
      });
  });
  const never = pointsNeverClosed(head);
  if (never.length > 0)
    context.addIssue({
      code: 'custom',
      path: ['pattern', 'margin'],
      message: `its timing and what is kept clear of the ramps leave no place of the crank at which ${never.join(', ')} may be measured`,
    });
  wearLimits.forEach(({ part, place }, index) => {
    if (place !== '' && !placesLimited(head, part).includes(place))
      context.addIssue({
        code: 'custom',
        path: ['wearLimits', index, 'place'],
        message: `there is no ${place} to limit ${LIMIT_KINDS[part].title.toLowerCase()} at`,
      });
  });
}

/** What a spec sheet says; the part that a published revision never changes. */
export const sheetBody = sheetFields.superRefine(namesItsPoints);
export type SheetBody = z.infer<typeof sheetBody>;

/** A draft may be changed; what is published is fixed; what came with an engine of another shop is fixed, and was not checked here. */
const sheetStatus = z.enum(['draft', 'published', 'foreign']);

export const sheetRevision = sheetFields.extend({
  id,
  sheetId: id,
  name: line(80),
  maker: line(60),
  number: z.int().min(1),
  status: sheetStatus,
  enteredBy: z.string(),
  checkedBy: z.string().nullable(),
  /** everybody who wrote at it */
  writers: z.array(z.string()),
  /** who read it against its source where whoever published it had written at it */
  readBy: z.string().nullable(),
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

/** The version of the format that is written; see `docs/formats.md`. */
export const SHEET_FORMAT = 3 as const;

/** A sheet as it is written to a file and read from one. */
export const sheetFile = z
  .object({
    format: z.literal('zero-lash-sheet', { error: 'this is not a Zero Lash spec sheet' }),
    /** 1 had pairs alone; 2 no names of the maker’s, no pictures, and nobody’s word on where a figure is from: both are read as they stand */
    formatVersion: z.literal([1, 2, SHEET_FORMAT], { error: 'this file was written by a newer Zero Lash' }),
    ...named,
    ...sheetFields.shape,
  })
  .superRefine(namesItsPoints);
export type SheetFile = z.infer<typeof sheetFile>;

/** A sheet and its file: decoded it is a new sheet, encoded it is written in the version of the format that is written now. */
export const sheetInFile = z.codec(sheetFile, z.custom<NewSheet>(), {
  decode: ({ format: _, formatVersion: __, name, maker, ...body }) => ({ name, maker, body }),
  encode: ({ name, maker, body }) => ({
    ...{ format: 'zero-lash-sheet' as const, formatVersion: SHEET_FORMAT },
    ...{ name, maker, ...body },
  }),
});

/** A sheet in a list: its newest published revision, or its draft where there is none. */
export const sheetSummary = z.object({
  id,
  revisionId: id,
  name: z.string(),
  maker: z.string(),
  number: z.int(),
  status: sheetStatus,
  /** a newer revision is being written */
  drafting: z.boolean(),
  /** published by one who wrote at it, and read by nobody else yet */
  unread: z.boolean(),
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
