import type {
  Bench,
  BenchChange,
  Instrument,
  InstrumentChange,
  NewBench,
  NewCheck,
  NewInstrument,
  Tools,
} from '@zero-lash/contract/instruments';
import { impossibleDay } from '@zero-lash/core/bounds';
import { mmFromTenths, tenthsFromMm } from '@zero-lash/core/length';
import type { Knex } from 'knex';
import { shopDay } from '../clock.ts';
import { allowsNetwork, reachable } from '../gauges/address.ts';
import { json } from '../storedJson.ts';
import { Refusal } from '../plugins/errors.ts';

/** Everything the shop measures with, and which bench has what. */
export async function readTools(db: Knex): Promise<Tools> {
  return { instruments: await readInstruments(db), benches: await readBenches(db) };
}

async function readInstruments(db: Knex, id?: string): Promise<Instrument[]> {
  const day = await shopDay(db);
  const rows = await db('instruments')
    .where(id ? { id } : {})
    .orderBy('active', 'desc')
    .orderBy('kind')
    .orderBy('name')
    .select('*');
  const checks = await db('instrument_checks as c')
    .join('people as p', 'p.id', 'c.by')
    .distinctOn('c.instrument_id')
    .orderBy([{ column: 'c.instrument_id' }, { column: 'c.at', order: 'desc' }])
    .select('c.*', 'p.name as person');
  return rows.map((row): Instrument => {
    const last = checks.find(({ instrument_id }) => instrument_id === row.id);
    return {
      id: row.id,
      name: row.name,
      kind: row.kind,
      unit: row.unit,
      uncertainty: mmFromTenths(row.uncertainty),
      angled: row.angled,
      blades: row.thicknesses.map(mmFromTenths),
      missing: row.missing.map(mmFromTenths),
      worn: row.worn.map(mmFromTenths),
      measured: json('instruments.measured', row.measured).map(([blade, is]) => ({
        blade: mmFromTenths(blade),
        is: mmFromTenths(is),
      })),
      address: row.address,
      torque: row.torque_from === null ? null : { from: row.torque_from, to: row.torque_to! },
      checkDue: row.check_due,
      active: row.active,
      version: row.version,
      overdue: row.check_due !== null && row.check_due <= day,
      lastCheck: last
        ? {
            block: mmFromTenths(last.block),
            found: mmFromTenths(last.found),
            passed: last.passed,
            nextDue: last.next_due,
            note: last.note,
            by: last.person,
            at: last.at.toISOString(),
          }
        : null,
    };
  });
}

async function findInstrument(db: Knex, id: string): Promise<Instrument> {
  const [found] = await readInstruments(db, id);
  if (!found) throw new Refusal('not_found', { detail: 'There is no such instrument.' });
  return found;
}

function columnsOf(input: NewInstrument) {
  const { name, kind, unit, uncertainty, angled, blades, missing, worn, measured, address, checkDue } = input;
  const { torque } = input;
  return {
    name,
    kind,
    unit,
    uncertainty: tenthsFromMm(uncertainty),
    angled,
    thicknesses: [...new Set(blades.map(tenthsFromMm))].sort((a, b) => a - b),
    missing: [...new Set(missing.map(tenthsFromMm))].sort((a, b) => a - b),
    worn: [...new Set(worn.map(tenthsFromMm))].sort((a, b) => a - b),
    measured: JSON.stringify(
      measured.map(({ blade, is }) => [tenthsFromMm(blade), tenthsFromMm(is)]).filter(([a, b]) => a !== b),
    ),
    address,
    torque_from: torque?.from ?? null,
    torque_to: torque?.to ?? null,
    check_due: checkDue,
  };
}

async function refuseTaken(db: Knex, table: string, name: string, but?: string): Promise<void> {
  const taken = await db(table)
    .whereRaw('lower(name) = lower(?)', [name])
    .modify((query) => but && query.whereNot({ id: but }))
    .first('id');
  if (taken)
    throw new Refusal('name_taken', {
      detail: `There is a ${name} already.`,
      fields: [{ path: 'name', message: 'is taken' }],
    });
}

/** Refuses an address on the shop's network where no lead allows that. */
async function refuseFar(db: Knex, address: string | null): Promise<void> {
  if (address === null || reachable(address, await allowsNetwork(db))) return;
  throw new Refusal('address_not_allowed', {
    detail: `${address} is not on the server’s own machine. A lead may allow gauges on the shop’s network, under Shop.`,
    fields: [{ path: 'address', message: 'is on the network, which no lead has allowed' }],
  });
}

/** Refuses a day that nobody means for the next check: in other years. */
async function refuseDue(db: Knex, path: string, due: string | null): Promise<void> {
  const why = due === null ? null : impossibleDay('check', due, await shopDay(db));
  if (why) throw new Refusal('invalid', { detail: `${due}: ${why}.`, fields: [{ path, message: why }] });
}

export async function addInstrument(db: Knex, input: NewInstrument): Promise<Instrument> {
  await refuseDue(db, 'checkDue', input.checkDue);
  await refuseFar(db, input.address);
  await refuseTaken(db, 'instruments', input.name);
  const [row] = await db('instruments').insert(columnsOf(input)).returning('id');
  return findInstrument(db, row!.id);
}

export async function changeInstrument(db: Knex, id: string, input: InstrumentChange): Promise<Instrument> {
  await db('instruments').where({ id }).forNoKeyUpdate().first('id');
  const current = await findInstrument(db, id);
  if (current.version !== input.version) throw new Refusal('stale', { current });
  if (current.kind !== input.kind)
    throw new Refusal('fixed', { detail: 'An instrument stays what it is; write down another one.' });
  await refuseTaken(db, 'instruments', input.name, id);
  if (input.checkDue !== current.checkDue) await refuseDue(db, 'checkDue', input.checkDue);
  if (input.active) await refuseFar(db, input.address);
  await db('instruments')
    .where({ id })
    .update({ ...columnsOf(input), active: input.active, version: input.version + 1 });
  return findInstrument(db, id);
}

const MOST_BLOCK_MM = 200;

/**
 * Writes down a check against a block, or of a wrench against a tester: passed where what was found lies within the instrument's own uncertainty. One
 * that failed is due again at once.
 */
export async function checkInstrument(
  db: Knex,
  id: string,
  { block, found, nextDue, note = '' }: NewCheck,
  personId: string,
): Promise<Instrument> {
  const { kind, uncertainty } = await findInstrument(db, id);
  await refuseDue(db, 'nextDue', nextDue);
  if (kind !== 'torque-wrench' && block > MOST_BLOCK_MM)
    throw new Refusal('invalid', {
      detail: `No block is over ${MOST_BLOCK_MM} mm.`,
      fields: [{ path: 'block', message: `is over ${MOST_BLOCK_MM} mm` }],
    });
  const off = Math.abs(tenthsFromMm(found) - tenthsFromMm(block));
  // of a wrench it is a share of what it is set to
  const good = kind === 'torque-wrench' ? (uncertainty / 100) * block : uncertainty;
  const passed = off <= tenthsFromMm(good);
  const due = passed ? nextDue : await shopDay(db);
  await db('instrument_checks').insert({
    instrument_id: id,
    block: tenthsFromMm(block),
    found: tenthsFromMm(found),
    passed,
    note,
    next_due: due,
    by: personId,
  });
  await db('instruments')
    .where({ id })
    .update({ check_due: due, version: db.raw('version + 1') });
  return findInstrument(db, id);
}

async function readBenches(db: Knex): Promise<Bench[]> {
  return db('benches')
    .orderBy('name')
    .select('id', 'name', 'blade_set_id as bladeSetId', 'max_stack as maxStack', 'version');
}

async function findBench(db: Knex, id: string): Promise<Bench> {
  const found = (await readBenches(db)).find((bench) => bench.id === id);
  if (!found) throw new Refusal('not_found', { detail: 'There is no such bench.' });
  return found;
}

async function refuseNoSet(db: Knex, bladeSetId: string | null): Promise<void> {
  if (bladeSetId === null) return;
  const set = await db('instruments').where({ id: bladeSetId, kind: 'blade-set' }).first('id');
  if (!set)
    throw new Refusal('invalid', {
      detail: 'A bench has a blade set.',
      fields: [{ path: 'bladeSetId', message: 'is no blade set' }],
    });
}

export async function addBench(db: Knex, input: NewBench): Promise<Bench> {
  await refuseTaken(db, 'benches', input.name);
  await refuseNoSet(db, input.bladeSetId);
  const [row] = await db('benches')
    .insert({ name: input.name, blade_set_id: input.bladeSetId, max_stack: input.maxStack })
    .returning('id');
  return findBench(db, row!.id);
}

export async function changeBench(db: Knex, id: string, input: BenchChange): Promise<Bench> {
  await db('benches').where({ id }).forNoKeyUpdate().first('id');
  const current = await findBench(db, id);
  const { version, name, bladeSetId, maxStack } = input;
  if (version !== undefined && version !== current.version) throw new Refusal('stale', { current });
  if (name !== undefined) await refuseTaken(db, 'benches', name, id);
  if (bladeSetId !== undefined) await refuseNoSet(db, bladeSetId);
  // what is undefined is left as it is
  await db('benches')
    .where({ id })
    .update({ name, blade_set_id: bladeSetId, max_stack: maxStack, version: current.version + 1 });
  return findBench(db, id);
}
