import { lashPoints, namesComplaint, rowComplaint, type Pattern } from '@zero-lash/core/sheets';
import { stopsAt } from '@zero-lash/core/turning';
import { z } from 'zod';
import { bounded, thicknessMm } from './bounded.ts';
import { line, remark } from './values.ts';

const degrees = z.number().min(0).max(719.999);
/** Degrees after a cylinder's own firing TDC, a whole cycle early or late at the most. */
const brakeAngle = z.number().min(-720).max(1440);
const ratio = z.number().min(0.5).max(4);
const few = (most: number) => z.int({ abort: true }).min(1, { abort: true }).max(most, { abort: true });
const pitch = z.number().min(0.2).max(3);
const torque = bounded('torque').nullable();

const CYCLE = 720;
/** Marks of a wheel that lie nearer than this are one. */
const LEAST_APART = 1;
/** Two cylinders may fire in the same moment; of more no engine here does. */
const MOST_AT_ONCE = 2;
const apart = (a: number, b: number) => Math.min(Math.abs(a - b), CYCLE - Math.abs(a - b));

export const role = z.enum(['intake', 'exhaust', 'intake-closing', 'exhaust-closing', 'brake']);

const sizes = z
  .object({ from: thicknessMm, to: thicknessMm, step: z.number().min(0.005).max(1) })
  .refine(({ from, to }) => from <= to, {
    path: ['to'],
    error: 'the thickest is not below the thinnest',
  });
const stampedIn = z.enum(['mm', 'in']).default('mm');
const gapAt = z.enum(['valve', 'cam']);
export const locking = z.enum(['lock-nut', 'self-locking', 'inner-screw']);

/** What is turned and locked: null is said where the source does not say. */
const adjuster = {
  pitch: pitch.nullable(),
  rockerRatio: ratio.nullable(),
  locking,
  torqueNm: torque,
  /** the most, where the source gives a range */
  torqueToNm: torque.optional(),
  /** of what holds by its own grip: the least it turns with */
  runsAtNm: torque.optional(),
  /** figures as they stand in the source, where that is in other units */
  asTyped: z
    .object({ pitch: remark(30).optional(), torque: remark(40).optional(), runsAt: remark(40).optional() })
    .optional(),
};

export const means = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('screw'),
    end: z.enum(['valve', 'pushrod', 'finger-pivot', 'eccentric']),
    ...adjuster,
    gapAt: gapAt.optional(),
  }),
  z.object({ kind: z.literal('pivot-nut'), ...adjuster }),
  z.object({
    kind: z.literal('shim'),
    seat: z.enum(['on-bucket', 'under-bucket', 'under-finger']),
    sizes: sizes.nullable(),
    diameter: z.number().min(3).max(60).nullable(),
    marking: remark(120),
    stampedIn,
    seatOffset: z.number().min(0).max(20).nullable(),
    /** of a finger: valve arm over cam arm */
    rockerRatio: ratio.optional(),
    /** of a finger: where its gap is taken */
    gapAt: gapAt.optional(),
    /** under buckets: the maker allows turning with nothing in */
    turnsBare: z.boolean().optional(),
    /** on buckets: where the crank is put before a tool holds a valve down */
    toolCrank: remark(120).optional(),
  }),
  z.object({ kind: z.literal('bucket'), sizes: sizes.nullable(), marking: remark(120), stampedIn }),
  z.object({ kind: z.literal('lash-cap'), sizes: sizes.nullable(), marking: remark(120), stampedIn }),
]);

/** A number, a letter, or a letter and a number: what a key of its points begins with. */
export const CYLINDER_NAME = /^(?:[A-Z]|[A-Z]?\d{1,2})$/;
const MOST_POINTS = 120;
const MOST_LETTERS = 12;

/** Which valve stands where along a head: a letter a valve. */
const valveOrder = z
  .string()
  .max(MOST_POINTS)
  .regex(/^[IE]*$/, { error: 'a letter a valve: I for an intake, E for an exhaust' });

const cylinder = z.object({
  id: z.string().regex(CYLINDER_NAME, {
    error: 'a cylinder is named by a number, a letter or both, such as 1, A or L2',
  }),
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
    camsAbove: z.enum(['one', 'two', 'unsaid']).default('unsaid'),
    coverHoldsCams: z.boolean().default(false),
    /** how it stands before it is measured or opened: left out where its source says nothing of it */
    readiness: z
      .object({
        coldHours: z.number().min(1).max(72).nullable().default(null),
        hotMinutes: z.number().min(1).max(600).nullable().default(null),
        barred: z.boolean().default(false),
        noSpark: z.boolean().default(false),
        doorsMinutes: z.number().min(1).max(600).nullable().default(null),
        access: z.array(line(60)).max(20).default([]),
      })
      .optional(),
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
    /** the maker's own table of pairs: which valves stand fully open, and the points measured then */
    makersPairs: z
      .array(
        z.object({
          open: z.array(z.string().max(12)).min(1).max(4),
          points: z.array(z.string().max(12)).min(1).max(MOST_POINTS),
        }),
      )
      .max(48)
      .default([]),
    /** what the maker calls a valve, a brake rocker or a cylinder, by our name of it */
    makersNames: z.record(z.string().max(12), line(MOST_LETTERS)).default({}),
    /** valves that stand in one row along a head */
    valveRow: z
      .object({ splayed: z.boolean().default(false), A: valveOrder, B: valveOrder.default('') })
      .nullable()
      .default(null),
    margin: z.number().min(0).max(60),
    /** none where the engine has none: it is put in position by its pistons */
    marks: z.array(degrees).max(72),
    /** what marks of the pulley or flywheel are called, where they are looked at from, and what beside them is none */
    markNames: z
      .array(
        z.object({
          at: z.number().min(0).max(359.999),
          words: line(40),
          from: z.enum(['front', 'flywheel', 'left', 'right']).nullable().default(null),
          decoys: remark(80).default(''),
        }),
      )
      .max(36)
      .default([]),
    /** what is seen at a position of the crank besides its mark, over both turns */
    positionSigns: z
      .array(
        z
          .object({ at: degrees, cams: remark(80).default(''), rotor: remark(60).default('') })
          .refine(({ cams, rotor }) => cams + rotor !== '', {
            path: ['cams'],
            error: 'say what is seen there: how the cams’ marks stand, or the rotor',
          }),
      )
      .max(24)
      .default([]),
    /** where the crank stands while a cam comes out, what locks it, and what comes first */
    camsOut: z
      .object({ at: degrees.nullable(), lockedBy: remark(120), first: remark(160) })
      .refine(({ at, lockedBy }) => at !== null || lockedBy !== '', {
        path: ['lockedBy'],
        error: 'its degrees, or what locks it',
      })
      .nullable()
      .default(null),
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
    value.cylinders.forEach(({ firesAt }, index) => {
      const before = value.cylinders.slice(0, index).filter((other) => other.firesAt === firesAt).length;
      if (before >= MOST_AT_ONCE)
        complain(['cylinders', index, 'firesAt'], `no more than ${MOST_AT_ONCE} cylinders fire at once`);
    });
    value.marks.forEach((mark, index) => {
      const near = value.marks.slice(0, index).find((other) => apart(mark, other) < LEAST_APART);
      if (near !== undefined)
        complain(
          ['marks', index],
          `${mark}° and ${near}° cannot be told apart: they lie under ${LEAST_APART}° from each other`,
        );
    });
    value.markNames.forEach(({ at }, index) => {
      if (!value.marks.some((mark) => apart(mark % (CYCLE / 2), at) < LEAST_APART))
        complain(['markNames', index, 'at'], `there is no mark at ${at}°`);
      if (value.markNames.findIndex((other) => other.at === at) !== index)
        complain(['markNames', index, 'at'], `the mark at ${at}° is named twice`);
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
    const paired = value.makersPairs.flatMap((pair) => pair.points);
    value.makersPairs.forEach(({ open, points: listed }, index) => {
      const strange = [...open, ...listed].find((key) => !points.has(key));
      if (strange) complain(['makersPairs', index, 'points'], `there is no point ${strange}`);
      const itself = open.find((key) => listed.includes(key));
      if (itself)
        complain(['makersPairs', index, 'points'], `${itself} is fully open there and cannot be measured`);
    });
    const pairedTwice = paired.find((key, index) => paired.indexOf(key) !== index);
    if (pairedTwice) complain(['makersPairs', 0, 'points'], `${pairedTwice} is there twice`);
    const banksThere = (['A', 'B'] as const).filter((bank) =>
      value.cylinders.some((each) => each.bank === bank),
    );
    for (const bank of value.valveRow ? banksThere : []) {
      const complaint = rowComplaint(value, bank, value.valveRow![bank]);
      if (complaint) complain(['valveRow', bank], complaint);
    }
    value.positionSigns.forEach(({ at }, index) => {
      if (!stopsAt(value as Pattern, at))
        complain(
          ['positionSigns', index, 'at'],
          `nothing is stopped at ${at}°: no mark, no firing, no table`,
        );
      if (value.positionSigns.findIndex((other) => other.at === at) !== index)
        complain(['positionSigns', index, 'at'], `${at}° is there twice`);
    });
    const misnamed = namesComplaint(value as Pattern);
    if (misnamed) complain(['makersNames'], misnamed);
    for (const [path, each] of [
      ['means', value.means],
      ...Object.entries(value.roleMeans).map(([of, own]) => [`roleMeans.${of}`, own]),
    ] as [string, z.output<typeof means> | undefined][])
      if (each?.kind === 'screw' && each.end === 'finger-pivot' && (each.rockerRatio ?? 2) <= 1)
        complain([...path.split('.'), 'rockerRatio'], 'the ratio of a finger is above 1');
    for (const [path, each] of [['means', value.means], ...Object.entries(value.roleMeans)] as [
      string,
      z.output<typeof means> | undefined,
    ][]) {
      if (each?.kind === 'screw' && each.end === 'eccentric' && each.pitch !== null)
        complain(
          path === 'means' ? ['means', 'pitch'] : ['roleMeans', path, 'pitch'],
          'an eccentric has no thread: it is set by the blade',
        );
      if (each?.kind === 'screw' && each.locking === 'inner-screw')
        complain(
          path === 'means' ? ['means', 'locking'] : ['roleMeans', path, 'locking'],
          'a screw inside it locks a nut on the pivot, and no other screw',
        );
    }
    if (value.layout === 'v' && value.bankAngle === null)
      complain(['bankAngle'], 'a V engine needs the angle between its banks');
    const banks = new Set(value.cylinders.map(({ bank }) => bank)).size;
    if (['single', 'inline'].includes(value.layout) && banks > 1)
      complain(['layout'], 'this layout has one bank only');
    if (value.layout === 'single' && names.length > 1) complain(['cylinders'], 'a single has one cylinder');
  });
