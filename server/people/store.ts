import type {
  NewPerson,
  Person,
  PersonChange,
  PersonChanged,
  Session,
  Shop,
  ShopChange,
} from '@zero-lash/contract/people';
import { ownPlace } from '@zero-lash/contract/places';
import { mmFromTenths } from '@zero-lash/core/length';
import { singleBandComplaint } from '@zero-lash/core/sheets';
import type { Knex } from 'knex';
import { announce } from '../plugins/bus.ts';
import { json } from '../storedJson.ts';
import { Refusal } from '../plugins/errors.ts';

const COLUMNS = ['id', 'name', 'role', 'active', 'email', 'version'] as const;
const CHANGES_SHOWN = 40;

export function listPeople(db: Knex): Promise<Person[]> {
  return db('people')
    .select(...COLUMNS)
    .orderByRaw('active desc, lower(name)');
}

export async function findPerson(db: Knex, id: string): Promise<Person> {
  const found = await db('people')
    .where({ id })
    .first(...COLUMNS);
  if (!found) throw new Refusal('not_found', { detail: 'There is no such person.' });
  return found;
}

export async function findForSignIn(
  db: Knex,
  name: string,
): Promise<(Person & { passphraseHash: string }) | null> {
  const row = await db('people')
    .whereRaw('lower(name) = lower(?)', [name])
    .where({ active: true })
    .first(...COLUMNS, 'passphrase_hash as passphraseHash');
  return row ?? null;
}

async function refuseTaken(db: Knex, name: string, own: string | null): Promise<void> {
  const taken = await db('people').whereRaw('lower(name) = lower(?)', [name]).first('id');
  if (taken && taken.id !== own)
    throw new Refusal('name_taken', {
      detail: `There is a ${name} already.`,
      fields: [{ path: 'name', message: 'is taken' }],
    });
}

/** Adds a person. `by` is who adds them; nobody, where a shop begins. */
export async function addPerson(
  db: Knex,
  person: Omit<NewPerson, 'passphrase'> & { readonly passphraseHash: string },
  by: string | null = null,
): Promise<Person> {
  await refuseTaken(db, person.name, null);
  const [row] = await db('people')
    .insert({
      name: person.name,
      role: person.role,
      passphrase_hash: person.passphraseHash,
    })
    .returning([...COLUMNS]);
  await record(db, null, row!, { by, passphraseSet: true });
  return row!;
}

/**
 * Changes a person, on the record. A shop never stays without a lead: two who make each other something else do so one
 * by one. Whoever is changed is signed out of what they may not do any more, on every server.
 */
export async function changePerson(
  db: Knex,
  id: string,
  change: Omit<PersonChange, 'passphrase'> & { readonly passphraseHash: string | null },
  by: string,
): Promise<Person> {
  await db('people').where({ role: 'lead', active: true }).orderBy('id').forNoKeyUpdate().select('id');
  const current = await db('people')
    .where({ id })
    .forNoKeyUpdate()
    .first(...COLUMNS);
  if (!current) throw new Refusal('not_found', { detail: 'There is no such person.' });
  if (change.version !== undefined && current.version !== change.version)
    throw new Refusal('stale', { current });
  if (change.name) await refuseTaken(db, change.name, id);
  const passphraseSet = change.passphraseHash !== null;
  const [row] = await db('people')
    .where({ id })
    .update({
      name: change.name ?? current.name,
      role: change.role ?? current.role,
      ...(change.email === undefined ? {} : { email: change.email }),
      active: change.active ?? current.active,
      version: current.version + 1,
      ...(change.passphraseHash === null ? {} : { passphrase_hash: change.passphraseHash }),
    })
    .returning([...COLUMNS]);
  const lead = await db('people').where({ role: 'lead', active: true }).first('id');
  if (!lead) throw new Refusal('last_lead');
  await record(db, current, row!, { by, passphraseSet });
  if (passphraseSet || change.active === false) await endSessions(db, id);
  else await announce(db, { kind: 'person-changed', person: id });
  return row!;
}

/** What a person's passphrase is kept as. */
export async function passphraseHashOf(db: Knex, id: string): Promise<string> {
  const { passphrase_hash: hash } = (await db('people').where({ id }).first('passphrase_hash'))!;
  return hash;
}

/**
 * A person gives themself another passphrase, on the record, and is signed out everywhere else.
 *
 * @param keep the mark of the session it was done in, which goes on
 */
export async function changeOwnPassphrase(db: Knex, id: string, hash: string, keep: string): Promise<void> {
  const [row] = await db('people')
    .where({ id })
    .update({ passphrase_hash: hash, version: db.raw('version + 1') })
    .returning([...COLUMNS]);
  await record(db, row as Person, row as Person, { by: id, passphraseSet: true });
  await db('sessions').where({ person_id: id }).whereNot({ sid: keep }).delete();
  await announce(db, { kind: 'person-changed', person: id });
}

/** Signs a person out everywhere: every session, on every server, with the streams that hang on them. */
export async function endSessions(db: Knex, personId: string): Promise<void> {
  await db('sessions').where({ person_id: personId }).delete();
  await announce(db, { kind: 'person-changed', person: personId });
}

type Written = Pick<Person, 'name' | 'role' | 'active'>;

async function record(
  db: Knex,
  before: Person | null,
  after: Person,
  { by, passphraseSet }: { readonly by: string | null; readonly passphraseSet: boolean },
): Promise<void> {
  const written = ({ name, role, active }: Person): string => JSON.stringify({ name, role, active });
  await db('people_changes').insert({
    person_id: after.id,
    before: before && written(before),
    after: written(after),
    passphrase_set: passphraseSet,
    by,
  });
}

/** What was changed of people, newest first. */
export async function readChanges(db: Knex): Promise<PersonChanged[]> {
  const rows = await db('people_changes as c')
    .join('people as p', 'p.id', 'c.person_id')
    .leftJoin('people as b', 'b.id', 'c.by')
    .orderBy('c.at', 'desc')
    .limit(CHANGES_SHOWN)
    .select('c.id', 'p.name as person', 'b.name as by', 'c.at', 'c.before', 'c.after', 'c.passphrase_set');
  return rows.map(({ before, after, passphrase_set: passphraseSet, ...row }) => ({
    ...row,
    by: row.by ?? 'the program',
    what: inWords(
      json('people_changes.person', before),
      json('people_changes.person', after)!,
      passphraseSet,
    ),
  }));
}

function inWords(before: Written | null, after: Written, passphraseSet: boolean): string[] {
  if (!before) return [`added as ${after.role}`];
  const said: string[] = [];
  if (before.name !== after.name) said.push(`name: ${before.name} → ${after.name}`);
  if (before.role !== after.role) said.push(`role: ${before.role} → ${after.role}`);
  if (before.active !== after.active) said.push(after.active ? 'is back' : 'has left');
  if (passphraseSet) said.push('new passphrase');
  return said.length > 0 ? said : ['kept as it was'];
}

const SHOP = [
  'name',
  'unit',
  'zone',
  'gauges_on_network as gaugesOnNetwork',
  'proves_again as provesAgain',
  'locked_stands as lockedStands',
  'cold_hours as coldHours',
  'allow_over as allowOver',
  'single_rule as singleRule',
  'remind_days as remindDays',
  'meter_feed as meterFeed',
  'address',
  'version',
] as const;

/** Who is signed in, in which shop, and whether they are its only lead. */
export async function readSession(db: Knex, person: Person): Promise<Session> {
  const other = await db('people')
    .where({ role: 'lead', active: true })
    .whereNot({ id: person.id })
    .first('id');
  return { person, shop: await readShop(db), soleLead: person.role === 'lead' && !other };
}

export async function readShop(db: Knex): Promise<Shop> {
  const {
    quiet_from: from,
    quiet_to: to,
    ...shop
  } = await db('shop').first(...SHOP, 'quiet_from', 'quiet_to');
  const allowOver = json('shop.allow_over', shop.allowOver);
  const singleRule = json('shop.single_rule', shop.singleRule);
  const [quietFrom, quietTo] = [from, to].map((time) => String(time).slice(0, 5)) as [string, string];
  return { ...shop, allowOver, singleRule, quietFrom, quietTo };
}

export async function changeShop(db: Knex, change: ShopChange): Promise<Shop> {
  const { version, allowOver, singleRule, meterFeed, ...rest } = change;
  // of two that change it at once the second waits, and changes what the first left
  await db('shop').forUpdate().first('version');
  const before = await readShop(db);
  if (version !== undefined && version !== before.version) throw new Refusal('stale', { current: before });
  // one that was named before there was a fence stays as it is, and is not read
  if (meterFeed && meterFeed !== before.meterFeed && !ownPlace(meterFeed))
    throw new Refusal('feed_elsewhere');
  if (singleRule) await refuseTooWide(db, singleRule);
  const taken = new Map([...before.allowOver, ...(allowOver ?? [])].map((each) => [each.role, each.over]));
  const { gaugesOnNetwork, provesAgain, lockedStands, coldHours, quietFrom, quietTo, remindDays } = rest;
  const { name, unit, zone, address } = rest;
  // what is undefined is left as it is
  await db('shop').update({
    ...{ name, unit, zone, address },
    gauges_on_network: gaugesOnNetwork,
    proves_again: provesAgain,
    locked_stands: lockedStands,
    cold_hours: coldHours,
    quiet_from: quietFrom,
    quiet_to: quietTo,
    remind_days: remindDays,
    meter_feed: meterFeed,
    allow_over: JSON.stringify(
      [...taken].filter(([, over]) => over > 0).map(([role, over]) => ({ role, over })),
    ),
    ...(singleRule === undefined ? {} : { single_rule: singleRule && JSON.stringify(singleRule) }),
    version: before.version + 1,
  });
  return readShop(db);
}

/**
 * Refuses a band round single figures that is wider than one that a sheet of the shop has.
 *
 * @throws Refusal `invalid`, with the sheet and its figure
 */
async function refuseTooWide(db: Knex, rule: NonNullable<Shop['singleRule']>): Promise<void> {
  const figures: { name: string; maker: string; figure: number }[] = await db('sheet_limits as l')
    .join('sheet_revisions as r', 'r.id', 'l.revision_id')
    .join('sheets as s', 's.id', 'r.sheet_id')
    .whereNotNull('l.figure_tenths')
    .whereNot('r.status', 'foreign')
    .distinct('s.name', 's.maker', 'l.figure_tenths as figure');
  for (const { name, maker, figure } of figures) {
    const why = singleBandComplaint(mmFromTenths(figure), rule);
    if (why)
      throw new Refusal('invalid', {
        detail: `The ${maker} ${name} gives ${mmFromTenths(figure)} mm alone: ${why}.`,
        fields: [{ path: 'singleRule', message: why }],
      });
  }
}

/** Makes sure the shop's own row is there. */
export async function ensureShop(
  db: Knex,
  shop: { readonly name: string; readonly zone: string },
): Promise<void> {
  await db('shop')
    .insert({ ...shop, unit: 'mm' })
    .onConflict('singleton')
    .ignore();
}
