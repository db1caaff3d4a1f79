// Long because two shops are opened once, and every way a record goes between them is tried on those two.
import {
  RECORD_TABLES,
  type RecordFile,
  type RecordTable,
  type RecordTaken,
} from '@zero-lash/contract/records';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import type { Knex } from 'knex';
import type { Tables } from 'knex/types/tables.js';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { connect, migrate } from '../database.ts';
import { passphraseMatches } from '../plugins/passphrase.ts';
import { NO_PASSPHRASE } from '../plugins/passphrase.ts';
import { addPerson, ensureShop } from '../people/store.ts';
import { knowStrangers } from '../people/strangers.ts';
import { openBuild } from '../stages/open.ts';
import { readDrawer } from '../pieces/store.ts';
import { viewEngine } from '../engines/read.ts';
import { findRevision } from '../sheets/read.ts';
import { publishRevision, reviseSheet } from '../sheets/store.ts';
import { sheetBody } from '@zero-lash/contract/sheets';
import { readFileSync } from 'node:fs';
import { peopleColumns, readRecord, TABLES, zipRecord } from '../records/read.ts';
import { takeRecord, wouldTake } from '../records/take.ts';
import { lookAtPictures, lookThrough } from '../records/unpack.ts';
import { aPicture, pictureFile } from './pictures.ts';
import { BENCH, emptyDatabase, LEAD, TestShop, VIEWER } from './shop.ts';

let shop: TestShop;
let other: Knex;
let there: string;
beforeAll(async () => {
  shop = await TestShop.open();
  other = connect(await emptyDatabase());
  await migrate(other);
  await ensureShop(other, { name: 'Another shop', zone: 'Europe/Vienna' });
  // one of the people is known here too, by name
  await addPerson(other, { name: BENCH, role: 'bench', passphraseHash: NO_PASSPHRASE });
  there = (await addPerson(other, { name: 'Lead of another', role: 'lead', passphraseHash: NO_PASSPHRASE }))
    .id;
});
afterAll(async () => {
  await other.destroy();
  await shop.close();
});

/** What is another here than there: a sheet is another shop's, and so are the pieces that went in and out of its drawer. */
const ELSEWHERE: Partial<Record<RecordTable, Readonly<Record<string, unknown>>>> = {
  sheet_revisions: { status: 'as it is kept' },
  piece_moves: { of_shop: 'whose it was' },
};

/** A record with people by their names, and without when it was written and taken in: what two shops can be held against each other by. */
const plain = ({ tables, people }: RecordFile) => {
  const names = new Map(people.map(({ id, name }) => [id, name.split(', of ')[0]!]));
  return Object.fromEntries(
    TABLES.filter((table) => table !== 'records_taken').map((table) => [
      table,
      tables[table].map((row) => ({
        ...row,
        ...ELSEWHERE[table],
        ...Object.fromEntries(
          peopleColumns(table).map((column) => [column, names.get(row[column] as string) ?? null]),
        ),
      })),
    ]),
  ) as Record<RecordTable, Record<string, unknown>[]>;
};
const into = (zip: Uint8Array) =>
  other.transaction((transaction) => takeRecord(transaction, { zip, record: lookThrough(zip) }, there));
const lookAt = (zip: Uint8Array) => lookAtPictures(zip, lookThrough(zip).rows);
const engineOf = async (name: string) => (await shop.buildOf(name)).engine.id;

describe('an engine’s record', () => {
  it('has every column of its tables, and of none that is worked out from others', async () => {
    const { rows } = await shop.db.raw(
      `select table_name as name, array_agg(column_name::text) as columns from information_schema.columns
        where table_schema = 'public' group by 1`,
    );
    const worked: Readonly<Record<string, readonly string[]>> = {
      engines: ['sought', 'running', 'owner_id'],
      sheet_revisions: ['writers'],
      photographs: ['picture'],
      // a shop that takes it in forecasts it again, by what it knows itself
      rechecks: ['forecast_at'],
      // of a gauge what tells which it was, and not where or how it is reached here
      instruments: ['address', 'check_due', 'active', 'version'],
      // which order they came by is the shop's
      piece_moves: ['order_id'],
      owners: ['version', 'created_at'],
      know_how: ['version'],
    };
    const columns = new Map(
      (rows as { name: string; columns: string[] }[]).map((row) => [row.name, row.columns]),
    );
    for (const table of TABLES)
      expect([...Object.keys(RECORD_TABLES[table]), ...(worked[table] ?? [])].sort(), table).toEqual(
        columns.get(table)!.sort(),
      );
  });

  it('has every table that belongs to an engine, but for what belongs to the shop beside it', async () => {
    const { rows } = await shop.db.raw(
      `select distinct c.conrelid::regclass::text as name from pg_constraint c
        where c.contype = 'f' and c.confrelid::regclass::text = any(:of)`,
      { of: ['engines', 'builds', 'rounds', 'rechecks', 'readings'] },
    );
    const ofTheShop = [
      // orders, what a feed sent before anybody answered, and letters that went out
      ...['piece_orders', 'meter_lines', 'reminders'],
    ];
    const belongs = (rows as { name: string }[]).map(({ name }) => name);
    expect(belongs.filter((name) => !ofTheShop.includes(name)).sort()).toEqual(
      TABLES.filter((table) => belongs.includes(table)).sort(),
    );
    expect(ofTheShop.filter((name) => !belongs.includes(name))).toEqual([]);
  });

  it('is taken in by another shop without loss, and once however often', async () => {
    const build = await shop.buildOf('Railcar 2, rear engine');
    await shop.call(BENCH, 'POST', `builds/${build.id}/photographs`, {
      ...{ stage: build.stage, about: 'the seats', note: 'pitted', file: await aPicture() },
    });
    for (const name of ['Railcar 2, rear engine', 'Railcar 3, front engine', 'Frost fan 9, River Terrace']) {
      const id = await engineOf(name);
      const zip = await zipRecord(shop.db, id);
      const taken = await into(zip);
      expect(taken).toMatchObject({ engineId: id, name, already: false });
      const [here, copied] = [await readRecord(shop.db, id), await readRecord(other, id)];
      expect(plain(copied)).toEqual(plain(here));
      expect(copied.tables.readings.length).toBe(taken.readings);
      // once more, and nothing is written
      expect((await into(zip)).already).toBe(true);
      expect(plain(await readRecord(other, id))).toEqual(plain(here));
      const files = unzipSync(await zipRecord(other, id));
      for (const [path, bytes] of Object.entries(unzipSync(zip)))
        if (path !== 'record.json')
          expect(Buffer.from(files[path]!).equals(Buffer.from(bytes)), path).toBe(true);
    }
    const people = await other('people').select('name', 'active', 'role');
    // nobody is taken for one of ours by a name, and who is of another shop can do nothing here
    expect(people.find(({ name }) => name === BENCH)).toEqual({ name: BENCH, active: true, role: 'bench' });
    for (const name of [BENCH, LEAD])
      expect(people.filter((each) => each.name === `${name}, of Overmere Valley Engine Works`)).toMatchObject(
        [{ active: false, role: 'viewer' }],
      );
    const [stranger] = await other('people').where({ active: false }).select('passphrase_hash as hash');
    expect(await passphraseMatches(stranger.hash, 'none')).toBe(false);
    expect(await other('instruments').where({ active: true })).toEqual([]);
  });

  it('of a sheet whose name is taken comes under a name of its own', async () => {
    const id = await engineOf('Line trolley');
    const zip = await zipRecord(shop.db, id);
    const sheet = (await readRecord(shop.db, id)).tables.sheets[0] as Tables['sheets'];
    await other('sheets').insert({ name: sheet.name, maker: sheet.maker });
    await into(zip);
    const { name } = (await other('sheets').where({ id: sheet.id }).first('name'))!;
    expect(name).toBe(`${sheet.name} (Overmere Valley Engine Works)`);
  });
});

describe('what a record brings from another shop', () => {
  const changed = async (
    name: string,
    change: (record: RecordFile & { tables: Record<RecordTable, Record<string, unknown>[]> }) => void,
  ) => {
    const files = unzipSync(await zipRecord(shop.db, await engineOf(name)));
    const record = JSON.parse(strFromU8(files['record.json']!));
    change(record);
    return zipSync({ ...files, 'record.json': strToU8(JSON.stringify(record)) });
  };
  /** Another id for something, everywhere in a file. */
  const renamed = (zip: Uint8Array, from: string, to: string = randomUUID()) => {
    const files = unzipSync(zip);
    const text = strFromU8(files['record.json']!).replaceAll(from, to);
    return zipSync({ ...files, 'record.json': strToU8(text) });
  };
  const readingsThere = async (id: string) => (await readRecord(other, id)).tables.readings;

  it('is said before it is done, and nothing is written by saying it', async () => {
    const id = await engineOf('Ballast trolley');
    const zip = await zipRecord(shop.db, id);
    const count = async () =>
      (
        await other.raw(`select (select count(*) from people)::int as people, (select count(*) from engines)::int as engines,
        (select count(*) from sheet_revisions)::int as revisions, (select count(*) from instruments)::int as instruments`)
      ).rows[0];
    const before = await count();
    const said = await wouldTake(other, { zip, record: lookThrough(zip) }, there);
    expect(said).toMatchObject({
      engineId: id,
      already: false,
      shop: 'Overmere Valley Engine Works',
      differences: [],
    });
    expect(await count()).toEqual(before);
    expect(await into(zip)).toEqual(said);
  });

  it('of sheets carries history and opens no build, until one is written and checked here', async () => {
    const id = await engineOf('Hose pump, Overmere Quay');
    const { revisionId } = await shop.buildOf('Hose pump, Overmere Quay');
    await into(renamed(await zipRecord(shop.db, id), revisionId));
    const { revision_id: revision } = (await other('builds').where({ engine_id: id }).first('revision_id'))!;
    const sheet = await findRevision(other, revision);
    expect(sheet.status).toBe('foreign');
    await other('builds').where({ engine_id: id }).update({ closed_at: other.fn.now() });
    const open = (of: string) =>
      openBuild(other, id, { revisionId: of, complaint: 'rattles', recheckId: undefined }, there);
    await expect(open(revision)).rejects.toMatchObject({ code: 'sheet_not_published' });
    // nobody changes what came
    await expect(
      other('sheet_limits').where({ revision_id: revision }).update({ max_tenths: 9000 }),
    ).rejects.toThrow(/immutable/);
    const draft = await reviseSheet(other, sheet.sheetId, sheetBody.parse(sheet), there);
    const own = await publishRevision(other, draft.id, draft.version, there);
    expect(own.status).toBe('published');
    expect(await open(own.id)).toHaveLength(1);
  });

  it('is judged again: what the file says otherwise is named, kept as its word, and counts for nothing', async () => {
    const id = await engineOf('Head saw, Pellow Mill');
    const whole = (await readRecord(shop.db, id)).tables.readings;
    const tight = whole.findIndex(({ verdict }) => verdict === 'tight');
    const zip = await changed('Head saw, Pellow Mill', ({ tables }) => {
      Object.assign(tables.readings[tight]!, { verdict: 'in-spec' });
      Object.assign(tables.readings[0]!, { allow_over_tenths: 1000 });
      Object.assign(tables.readings[1]!, { off_base: true, crank_angle: 100 });
      Object.assign(tables.usages[0]!, { read_at: '2150-01-01T00:00:00Z' });
    });
    const { differences } = await into(zip);
    expect(differences).toEqual(
      expect.arrayContaining([
        { path: `tables.readings.${tight}.verdict`, file: 'in-spec', here: 'tight' },
        { path: 'tables.readings.0.allow_over_tenths', file: '1000', here: 'more than its build allows' },
        {
          path: 'tables.usages.0.read_at',
          file: '2150-01-01T00:00:00Z',
          here: 'later than the file was written',
        },
      ]),
    );
    const copied = await readingsThere(id);
    expect(copied.find((row) => row.id === whole[tight]!.id)).toMatchObject({ verdict: 'tight' });
    // it stays with the engine, and goes on with it
    expect((await viewEngine(other, id)).takenIn).toMatchObject([{ differences }]);
    expect((await readRecord(other, id)).tables.records_taken).toMatchObject([{ differences }]);
  });

  it('is matched by name only where it is the same in everything, and else comes under another', async () => {
    const take = async (name: string, change: Record<string, unknown>) => {
      const id = await engineOf(name);
      const [gauge] = (await readRecord(shop.db, id)).tables.instruments;
      const stranger = randomUUID();
      const zip = renamed(
        await changed(name, ({ tables }) => Object.assign(tables.instruments[0]!, change)),
        gauge!.id as string,
        stranger,
      );
      const { instruments } = await into(zip);
      return {
        instruments,
        gauge: gauge!,
        stranger,
        used: (await readingsThere(id)).map((row) => row.instrument_id),
      };
    };
    // it is here by now, under the id that it has there
    const same = await take('Frost fan 1, Upper Terrace', {});
    const name = same.gauge.name as string;
    expect(same.instruments).toEqual([{ name, as: name, known: true }]);
    expect(same.used).toContain(same.gauge.id);
    expect(same.used).not.toContain(same.stranger);
    const another = await take('Frost fan 5, Mill Field', { uncertainty: 77 });
    const as = `${name} (Overmere Valley Engine Works)`;
    expect(another.instruments).toEqual([{ name, as, known: false }]);
    expect(another.used).toContain(another.stranger);
    expect(await other('instruments').where({ id: another.stranger }).first('name', 'active')).toEqual({
      ...{ name: as, active: false },
    });
    // a gauge of theirs is nobody's to reach from here
    const digital = await take('Frost fan 14, Long Acre', {
      name: 'Gauge',
      kind: 'digital-gauge',
      thicknesses: [],
      missing: [],
      worn: [],
      measured: [],
    });
    expect(digital.instruments).toEqual([{ name: 'Gauge', as: 'Gauge', known: false }]);
  });

  it('is whose engine it is, what was learned of it, and which pieces were moved, which lie in no drawer here', async () => {
    const name = 'Railcar 1, front engine';
    const id = await engineOf(name);
    const build = await shop.buildOf(name);
    await shop.db('engines').where({ id }).update({ owner: 'Upper Valley Line' });
    await shop
      .db('owners')
      .where({ name: 'Upper Valley Line' })
      .update({
        ...{ email: 'fleet@example.org', tells: 'peace', note: 'rings first' },
      });
    await shop.call(BENCH, 'POST', `builds/${build.id}/know-how`, {
      stage: build.stage,
      text: 'The third cap sticks.',
    });
    await shop.db('piece_moves').insert({
      ...{ system: 'shim-25', thickness: 25_000, count: -1, why: 'fitted', build_id: build.id, point: '1Ia' },
      by: (await shop.db('people').first('id'))!.id,
    });
    const drawerBefore = JSON.stringify(await readDrawer(other));
    await into(await zipRecord(shop.db, id));
    const copied = (await readRecord(other, id)).tables;
    expect(copied.owners).toMatchObject([
      { email: 'fleet@example.org', tells: 'peace', note: 'rings first' },
    ]);
    expect(copied.know_how).toMatchObject([{ text: 'The third cap sticks.' }]);
    expect(copied.piece_moves.length).toBeGreaterThan(0);
    expect(copied.piece_moves.every((row) => row.of_shop === 'Overmere Valley Engine Works')).toBe(true);
    expect(JSON.stringify(await readDrawer(other))).toBe(drawerBefore);
  });

  it('is refused where it cannot be shown, whatever the columns take', async () => {
    const zip = await changed('Edger, Pellow Mill', ({ tables }) =>
      Object.assign(tables.engines[0]!, { name: 'x'.repeat(500) }),
    );
    await expect(into(zip)).rejects.toMatchObject({ code: 'bad_record' });
  });

  it('asks after four hundred people at once', async () => {
    const asked: string[] = [];
    const watch = ({ sql }: { sql: string }) => void asked.push(sql);
    const people = Array.from({ length: 400 }, (_, index) => ({
      id: randomUUID(),
      name: `WriteContext ${index % 390}`,
    }));
    other.on('query', watch);
    const names = await knowStrangers(other, people, 'Another valley', there);
    other.off('query', watch);
    expect(new Set(names).size).toBe(400);
    expect(asked.length).toBeLessThan(5);
    expect(await knowStrangers(other, people, 'Another valley', there)).toEqual([]);
  });

  it('is always read, also from a file of the first format as it was first written', async () => {
    const fresh = connect(await emptyDatabase());
    await migrate(fresh);
    await ensureShop(fresh, { name: 'A third shop', zone: 'Europe/Vienna' });
    const { id } = await addPerson(fresh, { name: 'Lead', role: 'lead', passphraseHash: NO_PASSPHRASE });
    for (const file of ['railcar', 'frostFan', 'headSaw']) {
      const zip = readFileSync(new URL(`./fixtures/record1-${file}.zip`, import.meta.url));
      const record = lookThrough(zip);
      await lookAtPictures(zip, record.rows);
      const taken = await fresh.transaction((transaction) => takeRecord(transaction, { zip, record }, id));
      expect(taken, file).toMatchObject({ already: false, differences: [] });
      expect(taken.readings).toBeGreaterThan(0);
    }
    await fresh.destroy();
  });
});

describe('a file that is no such record', () => {
  const send = (zip: Uint8Array, who = LEAD) =>
    shop.call<RecordTaken & { code: string; detail: string }>(who, 'POST', 'records', {
      file: Buffer.from(zip).toString('base64'),
    });
  const changed = async (
    change: (record: { tables: Record<string, Record<string, unknown>[]> }) => void,
    name = 'Head saw, Pellow Mill',
  ) => {
    const files = unzipSync(await zipRecord(shop.db, await engineOf(name)));
    const record = JSON.parse(strFromU8(files['record.json']!));
    change(record);
    return zipSync({ ...files, 'record.json': strToU8(JSON.stringify(record)) });
  };

  it('is refused with where it is wrong, and nothing of it is taken in', async () => {
    const whole = await zipRecord(shop.db, await engineOf('Head saw, Pellow Mill'));
    const rows = async () => (await shop.db('readings').count({ n: '*' }).first())!.n;
    const before = await rows();
    const cases: [Uint8Array, RegExp][] = [
      [whole.subarray(0, whole.length - 200), /cut off, or is no ZIP/],
      [strToU8('not a zip at all'), /cut off, or is no ZIP/],
      [zipSync({ 'other.json': strToU8('{}') }), /“other.json”, which is no part/],
      [
        zipSync({ 'record.json': strToU8('{}'), '../../etc/passwd': strToU8('x') }),
        /“\.\.\/\.\.\/etc\/passwd”/,
      ],
      [zipSync({ 'record.json': strToU8('{"format": ') }), /cut off, or no JSON/],
      [zipSync({ 'record.json': strToU8('{}') }), /no record of an engine/],
      [await changed((record) => Object.assign(record, { formatVersion: 3 })), /newer Zero Lash/],
      [
        await changed(({ tables }) =>
          Object.assign(tables.sheet_revisions![0]!, {
            pictures: [{ at: 0, of: 'mark', says: 'the notch', file: 'bm90IGEgcGljdHVyZQ==' }],
          }),
        ),
        /sheet_revisions\.0\.pictures\.0: is damaged/,
      ],
      [
        await changed(({ tables }) => Object.assign(tables.readings![3]!, { lo: 5 })),
        /tables\.readings\.3: .*changed by hand/,
      ],
      [
        await changed(({ tables }) => Object.assign(tables.readings![2]!, { by: randomUUID() })),
        /readings\.2\.by: names no row of people/,
      ],
      [
        await changed(({ tables }) => Object.assign(tables.builds![0]!, { engine_id: randomUUID() })),
        /builds\.0\.engine_id/,
      ],
      [
        await changed(({ tables }) => Object.assign(tables.usages![1]!, { usage: 'many' })),
        /tables\.usages\.1\.usage/,
      ],
      [await changed(({ tables }) => Object.assign(tables.usages![1]!, { extra: 1 })), /tables\.usages\.1/],
      [
        await changed(({ tables }) => void tables.rounds!.push(tables.rounds![0]!)),
        /tables\.rounds: a row is in it twice/,
      ],
      [
        await changed(({ tables }) => void tables.engines!.push(tables.engines![0]!)),
        /of one engine, and not of 2/,
      ],
      [await changed(({ tables }) => void (tables.photographs = [{}])), /tables\.photographs\.0/],
      [
        await changed(({ tables }) => {
          for (const table of ['usages', 'readings'])
            tables[table] = Array.from({ length: 100_001 }, () => ({}));
        }),
        /It has 200\d{3} rows, and no record has over 200000/,
      ],
      [
        zipSync({ 'record.json': new Uint8Array(65 * 1024 * 1024) }, { level: 1 }),
        /record\.json is over 64 MB/,
      ],
      // every JSON column is held to what is written here, and so is every text and every date
      ...(await Promise.all(
        (
          [
            [
              ({ tables }) => Object.assign(tables.instruments![0]!, { thicknesses: ['thin'] }),
              /instruments\.0\.thicknesses/,
            ],
            [
              ({ tables }) => Object.assign(tables.instruments![0]!, { measured: [[5]] }),
              /instruments\.0\.measured/,
            ],
            [
              ({ tables }) => Object.assign(tables.builds![0]!, { allow_over: [{ over: 9 }] }),
              /builds\.0\.allow_over/,
            ],
            [({ tables }) => Object.assign(tables.rounds![0]!, { turn_done: [720] }), /rounds\.0\.turn_done/],
            [
              ({ tables }) => Object.assign(tables.rechecks![0]!, { forecast: { points: 3 } }),
              /rechecks\.0\.forecast/,
            ],
            [
              ({ tables }) => Object.assign(tables.sign_offs![0]!, { accepted: [7] }),
              /sign_offs\.0\.accepted/,
            ],
            [
              ({ tables }) => Object.assign(tables.readings![0]!, { as_typed: 'a\u0007b' }),
              /readings\.0\.as_typed/,
            ],
            [
              ({ tables }) => Object.assign(tables.builds![0]!, { opened_at: '0031-02-30T00:00:00Z' }),
              /builds\.0\.opened_at/,
            ],
          ] as [Parameters<typeof changed>[0], RegExp][]
        ).map(async ([change, said]): Promise<[Uint8Array, RegExp]> => [await changed(change), said]),
      )),
    ];
    for (const [zip, said] of cases) {
      const refused = await send(zip);
      expect(refused.status, String(said)).toBe(422);
      expect(refused.body.code).toBe('bad_record');
      expect(refused.body.detail).toMatch(said);
      expect(refused.body.detail).toContain('Nothing was imported.');
    }
    expect(await rows()).toBe(before);
    // what only the database knows is a row that does not fit, and nothing that broke here
    const nowhere = await changed(
      ({ tables }) => Object.assign(tables.builds![0]!, { stage: 'nowhere' }),
      'Irrigation pump, Long Meadow',
    );
    await expect(into(nowhere)).rejects.toMatchObject({
      code: 'bad_record',
      message: expect.stringMatching(/tables\.builds: a row does not fit \(builds_stage_check\)/),
    });
  });

  it('is refused for a picture that is none as it is kept', async () => {
    const build = await shop.buildOf('Frost fan 7, Chapel Slope');
    await shop.call(BENCH, 'POST', `builds/${build.id}/photographs`, {
      ...{ stage: build.stage, about: 'the seats', note: '', file: await aPicture() },
    });
    const zip = await zipRecord(shop.db, build.engine.id);
    await lookAt(zip);
    const files = unzipSync(zip);
    const path = Object.keys(files).find((name) => name.startsWith('photographs/'))!;
    const whole = files[path]!;
    const placed = await pictureFile({ format: 'jpeg', orientation: 6 });
    const others = [whole.subarray(0, whole.length / 2), strToU8('<svg/>'), await pictureFile(), placed];
    for (const [index, bytes] of others.entries())
      await expect(lookAt(zipSync({ ...files, [path]: bytes })), `picture ${index}`).rejects.toMatchObject({
        code: 'bad_record',
      });
  });

  it('of an engine that is here is not written again; who may not sign off may not take one in', async () => {
    const id = await engineOf('Head saw, Pellow Mill');
    const zip = await zipRecord(shop.db, id);
    expect(await send(zip)).toMatchObject({ status: 201, body: { engineId: id, already: true } });
    expect((await send(zip, BENCH)).status).toBe(403);
    const answer = await shop.raw(VIEWER, `/api/engines/${id}/record`);
    expect(answer.headers['content-type']).toBe('application/zip');
    expect((await shop.raw(VIEWER, `/api/engines/${randomUUID()}/record`)).statusCode).toBe(404);
  });
});
