import { addBench, addInstrument } from '../instruments/store.ts';
import type { NewInstrument } from '@zero-lash/contract/instruments';
import { tenthsFromMm } from '@zero-lash/core/length';
import type { Knex } from 'knex';

const MS_PER_DAY = 86_400_000;
/** Where the simulated gauge that ships with the program listens. */
const GAUGE = process.env.DEMO_GAUGE ?? '127.0.0.1:4519';

const hundredths = (from: number, to: number, step = 1) =>
  Array.from({ length: Math.floor((to - from) / step) + 1 }, (_, index) => (from + index * step) / 100);

const thou = (...sizes: number[]) => sizes.map((size) => (size * 254) / 10_000);

interface DemoInstrument extends Omit<NewInstrument, 'checkDue'> {
  /** days until its check is due; negative where it is overdue */
  readonly dueInDays: number | null;
}

const PLAIN: Pick<
  DemoInstrument,
  'angled' | 'missing' | 'worn' | 'measured' | 'blades' | 'address' | 'torque'
> = {
  angled: false,
  missing: [],
  worn: [],
  measured: [],
  blades: [],
  address: null,
  torque: null,
};

const INSTRUMENTS: readonly DemoInstrument[] = [
  {
    ...PLAIN,
    name: 'Long blades, bench 1',
    kind: 'blade-set',
    unit: 'mm',
    uncertainty: 0.01,
    blades: [...hundredths(5, 40), 0.45, 0.5, 0.55, 0.6, 0.65, 0.7, 0.75, 0.8, 0.9, 1],
    missing: [0.13],
    dueInDays: 190,
  },
  {
    ...PLAIN,
    name: 'Thou set, railway',
    kind: 'blade-set',
    unit: 'in',
    uncertainty: 0.0127,
    blades: thou(1.5, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 18, 20, 25),
    dueInDays: 40,
  },
  {
    ...PLAIN,
    name: 'Angled blades',
    kind: 'blade-set',
    unit: 'mm',
    uncertainty: 0.015,
    angled: true,
    blades: hundredths(5, 60, 5),
    worn: [0.05],
    measured: [{ blade: 0.3, is: 0.298 }],
    dueInDays: -23,
  },
  { ...PLAIN, name: 'Dial on the rocker', kind: 'indicator', unit: 'mm', uncertainty: 0.01, dueInDays: 75 },
  { ...PLAIN, name: 'Micrometer 0–25', kind: 'micrometer', unit: 'mm', uncertainty: 0.004, dueInDays: 310 },
  { ...PLAIN, name: 'Caliper 150', kind: 'caliper', unit: 'mm', uncertainty: 0.03, dueInDays: null },
  {
    ...PLAIN,
    name: 'Digital gauge, simulated',
    kind: 'digital-gauge',
    unit: 'mm',
    uncertainty: 0.005,
    address: GAUGE,
    dueInDays: 120,
  },
  {
    ...PLAIN,
    name: 'Small wrench',
    kind: 'torque-wrench',
    unit: 'mm',
    uncertainty: 4,
    torque: { from: 2, to: 25 },
    dueInDays: 140,
  },
  {
    ...PLAIN,
    name: 'Half-inch wrench',
    kind: 'torque-wrench',
    unit: 'mm',
    uncertainty: 4,
    torque: { from: 20, to: 110 },
    dueInDays: -9,
  },
];

/**
 * Loads what the demo shop measures with.
 *
 * @returns the blade set its readings were taken with
 */
export async function loadInstruments(db: Knex, lead: string, now: Date): Promise<string> {
  const day = (days: number) => new Date(now.getTime() + days * MS_PER_DAY).toISOString().slice(0, 10);
  const ids: Record<string, string> = {};
  for (const { dueInDays, ...instrument } of INSTRUMENTS) {
    const checkDue = dueInDays === null ? null : day(dueInDays);
    const { id } = await addInstrument(db, { ...instrument, checkDue } as NewInstrument);
    ids[instrument.name] = id;
    if (checkDue)
      await db('instrument_checks').insert({
        instrument_id: id,
        // of a wrench in N·m
        block: tenthsFromMm(instrument.torque ? instrument.torque.from : 0.5),
        found: tenthsFromMm(instrument.torque ? instrument.torque.from * 1.02 : 0.502),
        passed: true,
        next_due: checkDue,
        by: lead,
        at: new Date(now.getTime() - 200 * MS_PER_DAY),
      });
  }
  const long = ids['Long blades, bench 1']!;
  await addBench(db, { name: 'Bench 1', bladeSetId: long, maxStack: 2 });
  await addBench(db, { name: 'Railway bay', bladeSetId: ids['Thou set, railway']!, maxStack: 3 });
  await addBench(db, { name: 'Field box', bladeSetId: ids['Angled blades']!, maxStack: 1 });
  return long;
}
