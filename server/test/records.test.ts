import {
  RECORD_TABLES,
  type RecordFile,
  type RecordTable,
  type RecordTaken,
} from '@zero-lash/contract/records';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import type { Knex } from 'knex';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { connect, migrate } from '../database.ts';
import { passphraseMatches } from '../people/passphrase.ts';
import { addPerson, ensureShop } from '../people/store.ts';
import { peopleColumns, readRecord, TABLES, zipRecord } from '../records/read.ts';
import { lookAtPictures, takeRecord, unpackRecord } from '../records/take.ts';
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
  await addPerson(other, { name: BENCH, role: 'bench', passphrase: 'another-passphrase' });
  there = (
    await addPerson(other, { name: 'Lead of another', role: 'lead', passphrase: 'another-passphrase' })
  ).id;
});
afterAll(async () => {
  await other.destroy();
  await shop.close();
});

/** A record with people by their names, and without when it was written: what two shops can be held against each other by. */
const plain = ({ tables, people }: RecordFile) => {
  const names = new Map(people.map(({ id, name }) => [id, name.split(', of ')[0]!]));
  return Object.fromEntries(
    TABLES.map((table) => [
      table,
      tables[table].map((row) => ({
        ...row,
        ...Object.fromEntries(
          peopleColumns(table).map((column) => [column, names.get(row[column] as string) ?? null]),
        ),
      })),
    ]),
  ) as Record<RecordTable, Record<string, unknown>[]>;
};
const into = (zip: Uint8Array) =>
  other.transaction((transaction) => takeRecord(transaction, unpackRecord(zip), there));
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
      // a shop that takes it in forecasts it anew, by what it knows itself
      rechecks: ['forecast_at'],
      // of a gauge what tells which it was, and not where or how it is reached here
      instruments: ['address', 'check_due', 'active', 'version'],
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
      // what it knows of a pattern and orders, where pieces lie, what a feed sent before anybody answered, and letters that went out
      ...['know_how', 'piece_orders', 'piece_moves', 'meter_lines', 'reminders'],
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
    const [sheet] = (await readRecord(shop.db, id)).tables.sheets;
    await other('sheets').insert({ name: sheet!.name, maker: sheet!.maker });
    await into(zip);
    const { name } = await other('sheets').where({ id: sheet!.id }).first('name');
    expect(name).toBe(`${sheet!.name as string} (Overmere Valley Engine Works)`);
  });
});

describe('a file that is no such record', () => {
  const send = (zip: Uint8Array, who = LEAD) =>
    shop.call<RecordTaken & { code: string; detail: string }>(who, 'POST', 'records', {
      file: Buffer.from(zip).toString('base64'),
    });
  const changed = async (change: (record: { tables: Record<string, Record<string, unknown>[]> }) => void) => {
    const files = unzipSync(await zipRecord(shop.db, await engineOf('Head saw, Pellow Mill')));
    const record = JSON.parse(strFromU8(files['record.json']!));
    change(record);
    return zipSync({ ...files, 'record.json': strToU8(JSON.stringify(record)) });
  };

  it('is refused with where it is wrong, and nothing of it is taken in', async () => {
    const whole = await zipRecord(shop.db, await engineOf('Head saw, Pellow Mill'));
    const rows = async () => (await shop.db('readings').count('* as n').first())!.n;
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
      [await changed((record) => Object.assign(record, { formatVersion: 2 })), /newer Zero Lash/],
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
      expect(refused.body.detail).toContain('Nothing was taken in.');
    }
    expect(await rows()).toBe(before);
    // what only the database knows is a row that does not fit, and nothing that broke here
    const nowhere = await changed(({ tables }) => Object.assign(tables.builds![0]!, { stage: 'nowhere' }));
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
    await lookAtPictures(unpackRecord(zip));
    const files = unzipSync(zip);
    const path = Object.keys(files).find((name) => name.startsWith('photographs/'))!;
    const whole = files[path]!;
    const placed = await pictureFile({ format: 'jpeg', orientation: 6 });
    const others = [whole.subarray(0, whole.length / 2), strToU8('<svg/>'), await pictureFile(), placed];
    for (const [index, bytes] of others.entries())
      await expect(
        lookAtPictures(unpackRecord(zipSync({ ...files, [path]: bytes }))),
        `picture ${index}`,
      ).rejects.toMatchObject({ code: 'bad_record' });
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
