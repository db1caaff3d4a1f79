import { mayBeBlade } from '@zero-lash/core/measuring';
import { z } from 'zod';
import { bounded } from './bounded.ts';
import { ownPlace } from './places.ts';
import { day, id, line, moment, remark, version } from './values.ts';

export const instrumentKind = z.enum([
  'blade-set',
  'indicator',
  'micrometer',
  'caliper',
  'digital-gauge',
  'torque-wrench',
]);
export type InstrumentKind = z.infer<typeof instrumentKind>;

const bladeMm = bounded('blade');
const torqueNm = bounded('wrench');
/** A torque wrench that is further off is none. */
const MOST_PER_CENT = 20;
const MOST_OFF_MM = 1;

const instrumentFields = z.object({
  name: line(60),
  kind: instrumentKind,
  /** what its blades or its scale are marked in */
  unit: z.enum(['mm', 'in']),
  /** mm: for a blade set, how well a drag is felt again; for the others, of one reading; for a torque wrench, per cent */
  uncertainty: z.number().min(0).max(MOST_PER_CENT, { error: 'that far off it measures nothing here' }),
  /** its blades are bent, to reach behind a cam */
  angled: z.boolean(),
  /** mm, of the blades it was made with; empty for the others */
  blades: z.array(bladeMm).max(80),
  /** mm, of the blades that are not in it any more */
  missing: z.array(bladeMm).max(80),
  /** mm, of the blades with a worn tip: they are not gone by */
  worn: z.array(bladeMm).max(80).default([]),
  /** what a micrometer says of a blade, where it is not what is stamped on it */
  measured: z
    .array(z.object({ blade: bladeMm, is: bladeMm }))
    .max(80)
    .default([]),
  /** host and port of a digital gauge's listener, on the server's machine or the shop's own network */
  address: z
    .string()
    .max(30)
    .refine((text) => ownPlace(text) !== null, {
      error: 'a gauge is reached at an address and a port from 1 to 65535, such as 127.0.0.1:4519',
    })
    .nullable(),
  /** N·m, what a torque wrench can be set to; null for everything else */
  torque: z
    .object({ from: torqueNm, to: torqueNm })
    .refine(({ from, to }) => from < to, { path: ['to'], error: 'must be above the least' })
    .nullable()
    .default(null),
  checkDue: day.nullable(),
});

/** What one field of an instrument says of another. */
function fits(
  value: z.output<typeof instrumentFields>,
  context: z.core.$RefinementCtx<z.output<typeof instrumentFields>>,
): void {
  const complain = (path: string, message: string) =>
    context.addIssue({ code: 'custom', path: [path], message });
  if (value.kind === 'blade-set' && value.blades.length === 0) complain('blades', 'a set has blades');
  if (value.kind !== 'blade-set' && value.blades.length > 0)
    complain('blades', 'only a blade set has blades');
  if (value.missing.some((blade) => !value.blades.includes(blade)))
    complain('missing', 'only a blade of the set can be missing');
  if (value.worn.some((blade) => !value.blades.includes(blade)))
    complain('worn', 'only a blade of the set can be worn');
  value.measured.forEach(({ blade, is }, index) => {
    if (!value.blades.includes(blade)) complain('measured', `no blade of the set is stamped ${blade}`);
    else if (!mayBeBlade(blade, is))
      complain('measured', `${blade} measured ${is}: that far off it is another blade`);
    if (value.measured.findIndex((other) => other.blade === blade) !== index)
      complain('measured', `${blade} is there twice`);
  });
  if (value.kind !== 'torque-wrench' && value.uncertainty > MOST_OFF_MM)
    complain('uncertainty', 'an uncertainty over 1 mm measures nothing here');
  if ((value.kind === 'torque-wrench') !== (value.torque !== null))
    complain('torque', 'a torque wrench has a range, and nothing else has');
  if ((value.kind === 'digital-gauge') !== (value.address !== null))
    complain('address', 'a digital gauge has an address, and nothing else has');
}

export const newInstrument = instrumentFields.superRefine(fits);
export type NewInstrument = z.infer<typeof newInstrument>;

export const instrumentChange = instrumentFields.extend({ version, active: z.boolean() }).superRefine(fits);
export type InstrumentChange = z.infer<typeof instrumentChange>;

/** A check of an instrument against a block, in mm; of a torque wrench against a tester, in N·m. */
export const newCheck = z.object({
  block: z
    .number()
    .min(0.01, { error: 'nothing is checked against so little' })
    .max(1000, { error: 'nothing is checked against so much' }),
  found: z.number().min(0).max(1000),
  nextDue: day,
  note: remark(200).default(''),
});
export type NewCheck = z.input<typeof newCheck>;

export const instrumentCheck = z.object({
  block: z.number(),
  found: z.number(),
  passed: z.boolean(),
  nextDue: day,
  note: z.string(),
  by: z.string(),
  at: moment,
});

export type InstrumentCheck = z.infer<typeof instrumentCheck>;

export const instrument = instrumentFields.extend({
  /** as it was written down, though by now no gauge would be put there */
  address: z.string().nullable(),
  id,
  active: z.boolean(),
  version,
  /** its check is due or past due, today in the shop */
  overdue: z.boolean(),
  lastCheck: instrumentCheck.nullable(),
});
export type Instrument = z.infer<typeof instrument>;

const benchFields = z.object({
  name: line(60),
  bladeSetId: id.nullable(),
  /** how many blades may be held together */
  maxStack: z.int().min(1).max(4),
});
export const newBench = benchFields;
export type NewBench = z.infer<typeof newBench>;
/** What is left out stays; where a version is said, nobody else may have changed the bench since it was read. */
export const benchChange = benchFields.extend({ version }).partial();
export type BenchChange = z.infer<typeof benchChange>;
export const bench = benchFields.extend({ id, version });
export type Bench = z.infer<typeof bench>;

/** What the shop measures with. */
export const tools = z.object({ instruments: z.array(instrument), benches: z.array(bench) });
export type Tools = z.infer<typeof tools>;

/** A device that takes a gauge: its readings go to that device until it lets go. */
export const gaugeHold = z.object({ device: id });

/** How a gauge is reached, and who has taken it. */
export const gaugeLink = z.object({
  instrument: id,
  connected: z.boolean(),
  simulated: z.boolean(),
  heldBy: z.string().optional(),
  heldHere: z.boolean().optional(),
});

/** What is answered to a device that takes a gauge or lets it go. */
export const gaugeHeld = z.object({ instrument: id, device: id });

/** What is answered to who has told a simulated gauge something. */
export const gaugeTold = z.object({ told: z.boolean() });

/** What a simulated gauge is told to be like. */
export const simulatedGauge = z
  .object({
    /** mm, the gap it is held in */
    gap: z.number().min(0).max(5),
    /** mm, standard deviation of a reading */
    noise: z.number().min(0).max(0.1),
    /** mm, how far its zero has moved */
    drift: z.number().min(-0.5).max(0.5),
    unit: z.enum(['mm', 'in']),
    /** share of what it sends that is cut off or lost */
    dropOuts: z.number().min(0).max(1),
  })
  .partial();
export type SimulatedGauge = z.infer<typeof simulatedGauge>;
