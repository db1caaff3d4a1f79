import { randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, statSync, truncateSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { backUp, checkBackup, restore } from '../../scripts/backups.mjs';
import { ensureDatabase } from '../../scripts/database.mjs';
import { loadMigrations } from '../../scripts/migrations.mjs';
import { ensurePostgres } from '../../scripts/system.mjs';
import { connect } from '../database.ts';
import { takeBack } from './earlierSteps.ts';
import { BENCH, emptyDatabase, LEAD, TestShop } from './shop.ts';

const bin = ensurePostgres();
const folder = mkdtempSync(join(tmpdir(), 'zero-lash-backup-'));
let shop: TestShop;
let migrations: Awaited<ReturnType<typeof loadMigrations>>;
beforeAll(async () => {
  shop = await TestShop.open();
  migrations = await loadMigrations();
});
afterAll(async () => {
  await shop.close();
  rmSync(folder, { recursive: true });
});

const newFile = () => join(folder, `${randomUUID()}.backup`);
const put = (url: string, file: string, over = false) =>
  restore({ url, bin, file, over, migrations: migrations.known, migrate: migrations.up });

/** Every row of every table, as text, sorted; the lock of the migrations is nobody's data. */
/** Tables that change by themselves while a server runs. */
const RESTLESS = new Set(['table_changes', 'table_counts', 'knex_migrations_lock', 'write_tries']);

async function everyRow(url: string): Promise<Record<string, string[]>> {
  const db = connect(url);
  const tables = await db('pg_tables')
    .where({ schemaname: 'public' })
    .orderBy('tablename')
    .pluck('tablename');
  const rows: Record<string, string[]> = {};
  for (const table of (tables as string[]).filter((name) => !RESTLESS.has(name)))
    rows[table] = (await db(table).select(db.raw(`"${table}"::text as row`))).map(({ row }) => row).sort();
  await db.destroy();
  return rows;
}

async function work(): Promise<void> {
  const build = await shop.buildOf('Frost fan 7, Chapel Slope');
  const reading = { point: '1I', reading: { kind: 'bracket', go: 0.28, noGo: 0.3 }, asTyped: '0.28 0.30' };
  for (let times = 0; times < 5; times += 1)
    await shop.call(BENCH, 'POST', `rounds/${build.rounds[0]!.id}/readings`, reading);
  await shop.call(BENCH, 'POST', `builds/${build.id}/notes`, {
    stage: build.stage,
    text: 'Ünder “quotes”\n\\.\tand tabs',
  });
  await shop.call(LEAD, 'POST', 'people', {
    name: `Né ${randomUUID()}`,
    role: 'viewer',
    passphrase: 'long enough it is',
  });
}

describe('a backup of a worked shop', () => {
  it('is taken while the shop is worked in, and restored equal row by row', async () => {
    await work();
    const file = newFile();
    const working = work();
    await backUp({ url: shop.url, bin, file });
    await working;
    const still = newFile();
    await backUp({ url: shop.url, bin, file: still });
    const before = await everyRow(shop.url);
    expect(Object.values(before).flat().length).toBeGreaterThan(1300);
    for (const each of [still, file]) {
      const url = await emptyDatabase();
      expect(await put(url, each)).toEqual({ before: null });
      const after = await everyRow(url);
      if (each === still) expect(after).toEqual(before);
      else expect(Object.keys(after)).toEqual(Object.keys(before));
      const there = await TestShop.on(url);
      expect((await there.call(BENCH, 'GET', 'today')).status).toBe(200);
      await expect(there.db('readings').update({ reason: 'rewritten' })).rejects.toThrow(/stays/);
      await there.close();
    }
  });

  it('takes the place of another shop only when told, while nobody is in it, and keeps what was there', async () => {
    const file = newFile();
    await backUp({ url: shop.url, bin, file });
    const url = await emptyDatabase();
    await put(url, file);
    const db = connect(url);
    await db('engines').update({ owner: 'Somebody else' });
    await expect(put(url, file)).rejects.toThrow(/is not empty/);
    await expect(put(url, file, true)).rejects.toThrow(/is open/);
    await db.destroy();
    const { before } = await put(url, file, true);
    expect(await everyRow(url)).toEqual(await everyRow(shop.url));
    const kept = connect(Object.assign(new URL(url), { pathname: `/${before}` }).href);
    expect(await kept('engines').where({ owner: 'Somebody else' }).first()).toBeDefined();
    await kept.destroy();
  });

  it('is its owner’s alone, and has no private address in it in clear', async () => {
    const { body } = await shop.call<{ path: string }>(BENCH, 'POST', 'calendar-feeds');
    const file = join(folder, randomUUID(), 'shop.backup');
    await backUp({ url: shop.url, bin, file });
    expect([statSync(file).mode & 0o777, statSync(join(file, '..')).mode & 0o777]).toEqual([0o600, 0o700]);
    const token = /calendar\/(.*)\.ics/.exec(body.path)![1]!;
    const rows = Object.values(await everyRow(shop.url)).flat();
    expect(rows.filter((row) => row.includes(token))).toEqual([]);
  });

  it('is opened and read back at a word, and nothing of that stays', async () => {
    const file = newFile();
    await backUp({ url: shop.url, bin, file });
    const check = (each: string) =>
      checkBackup({ url: shop.url, bin, file: each, migrations: migrations.known, migrate: migrations.up });
    const { engines, readings } = await check(file);
    expect(engines).toBe(Number((await shop.db('engines').count({ n: '*' }).first())!.n));
    expect(readings).toBeGreaterThan(100);
    const cut = newFile();
    const bytes = readFileSync(file);
    writeFileSync(cut, bytes.subarray(0, bytes.length - 4000));
    await expect(check(cut)).rejects.toThrow();
    const { rows } = await shop.db.raw(`select 1 from pg_database where datname like 'zero_lash_check%'`);
    expect(rows).toEqual([]);
  });

  it('that was cut off as it took a shop’s place is found out at the start, and no empty shop is begun', async () => {
    const name = `lost_${randomUUID().slice(0, 8)}`;
    const url = (database: string) => Object.assign(new URL(shop.url), { pathname: `/${database}` }).href;
    const cluster = { url };
    const before = `${name}_before_20310101000000`;
    await ensureDatabase(cluster, before);
    await expect(ensureDatabase(cluster, name)).rejects.toThrow(
      new RegExp(`${before}: a restore was cut off`),
    );
    const { rows } = await shop.db.raw('select 1 from pg_database where datname = ?', [name]);
    expect(rows).toEqual([]);
    await shop.db.raw(`alter database ${before} rename to ${name}`);
    expect(await ensureDatabase(cluster, name)).toBe(url(name));
    await shop.db.raw(`drop database ${name}`);
  });

  it('of an older schema is brought to this one; of a newer one it is refused', async () => {
    const file = newFile();
    const url = await emptyDatabase();
    await migrations.up(url);
    const older = connect(url);
    await takeBack(older, 5);
    await older.destroy();
    await backUp({ url, bin, file });
    const other = await emptyDatabase();
    await put(other, file);
    expect(await migrations.done(other)).toEqual(migrations.names);
    const ahead = newFile();
    await migrations.up(url);
    await backUp({ url, bin, file: ahead });
    const target = await emptyDatabase();
    await expect(
      restore({
        url: target,
        bin,
        file: ahead,
        migrations: migrations.known.slice(0, -1),
        migrate: migrations.up,
      }),
    ).rejects.toThrow(`newer Zero Lash (${migrations.names.at(-1)!})`);
    expect(await everyRow(target)).toEqual({});
  });

  it('that is cut short, spoilt, foreign or not there changes nothing', async () => {
    const whole = newFile();
    await backUp({ url: shop.url, bin, file: whole });
    const [cut, spoilt, foreign] = [newFile(), newFile(), newFile()];
    const bytes = readFileSync(whole);
    writeFileSync(cut, bytes);
    truncateSync(cut, Math.floor(bytes.length / 2));
    writeFileSync(spoilt, bytes.fill(0, bytes.length - 9000, bytes.length - 3000));
    writeFileSync(foreign, 'Not a backup at all');
    const url = await emptyDatabase();
    for (const file of [cut, spoilt, foreign, newFile()]) {
      await expect(put(url, file), file).rejects.toThrow();
      expect(await everyRow(url)).toEqual({});
    }
    await expect(backUp({ url: shop.url, bin, file: whole })).rejects.toThrow(/there already/);
    expect(await everyRow(url)).toEqual({});
  });
});
