import { countBy, seeded } from './shop.mjs';

/** What stands in a field that somebody else wrote. */
const ODD = [
  ...[
    null,
    '',
    'x',
    -1,
    0,
    1e9,
    1.5,
    true,
    [],
    {},
    '9999-12-31',
    '1900-01-01T00:00:00Z',
    '2199-12-31T00:00:00Z',
  ],
  ...['\u0000', '\u202e', '0'.repeat(5000), [null], { kind: 'value', value: 1e300 }, 'Infinity', '-0'],
];

/**
 * An engine's record with one field of it changed, again and again: each is taken whole, and can be shown, or is refused by name.
 * Nothing is kept of any.
 *
 * @param zip the record as it went out
 * @param look looks through a file, as the server does before it takes one
 * @param wouldTake takes what was looked through into a shop that does not have it, and puts it back
 */
export async function changedRecords({ zip, look, wouldTake, changes }) {
  const { strFromU8, strToU8, unzipSync, zipSync } = await import('fflate');
  const files = unzipSync(zip);
  const text = strFromU8(files['record.json']);
  const chance = seeded(11);
  const pick = (list) => list[Math.floor(chance() * list.length)];
  const came = [];
  const broke = [];
  for (let change = 0; change < changes; change += 1) {
    const record = JSON.parse(text);
    const tables = Object.entries(record.tables).filter(([, rows]) => rows.length > 0);
    const [table, rows] = pick(tables);
    const row = pick(rows);
    const column = pick(Object.keys(row));
    // inside of what is kept as JSON as well
    let at = row;
    let key = column;
    while (at[key] && typeof at[key] === 'object' && Object.keys(at[key]).length > 0 && chance() < 0.7) {
      at = at[key];
      key = pick(Object.keys(at));
    }
    at[key] = pick(ODD);
    try {
      const changed = zipSync({ ...files, 'record.json': [strToU8(JSON.stringify(record)), { level: 1 }] });
      const { differences } = await wouldTake(changed, look(changed));
      came.push(differences.length > 0 ? 'taken, with what differs named' : 'taken');
    } catch (error) {
      const named = error.code === 'bad_record' || error.code === 'name_taken';
      came.push(named ? 'refused by name' : 'broke');
      if (!named) broke.push(`${table}.${column}: ${error.message.slice(0, 160)}`);
    }
  }
  return { by: countBy(came), broke };
}
