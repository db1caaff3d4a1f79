import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { EngineView } from '@zero-lash/contract/engines';
import type { SheetRevision, SheetSummary } from '@zero-lash/contract/sheets';
import { PAGES } from '@zero-lash/contract/pages';
import type { Today } from '@zero-lash/contract/today';
import { STAGE_KEYS } from '@zero-lash/core/builds';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { buildApp } from '../app.ts';
import { dayIn } from '../clock.ts';
import { loadDemo } from '../demo/load.ts';
import { addFirstLead } from '../people/firstLead.ts';
import { BENCH, cookiesOf, TestShop, VIEWER, type BuildView } from './shop.ts';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

const today = async () => (await shop.call<Today>(VIEWER, 'GET', 'today')).body;

describe('the demo world', () => {
  it('has an engine in every stage, and rechecks not held, overdue, due and coming', async () => {
    const { stages, rechecks } = await today();
    expect(stages.map(({ stage }) => stage)).toEqual([...STAGE_KEYS]);
    expect(stages.every(({ count }) => count > 0)).toBe(true);
    for (const count of Object.values(rechecks.counts)) expect(count).toBeGreaterThan(0);
    expect(rechecks.list[0]!.state).toBe('not-held');
    expect(rechecks.list[rechecks.counts['not-held']]!.state).toBe('overdue');
  });

  it('is laid down once, and an empty shop gets a lead of its own only', async () => {
    const before = await shop.db('engines').count('* as n').first();
    expect(await loadDemo(shop.db)).toBe(false);
    expect(await shop.db('engines').count('* as n').first()).toEqual(before);
    expect(await addFirstLead(shop.db)).toBeNull();
  });

  it('shows an engine with its builds, its gaps in the order they were found, and its rechecks', async () => {
    const build = await shop.buildOf('Railcar 3, front engine');
    const { body } = await shop.call<EngineView>(VIEWER, 'GET', `engines/${build.engine.id}`);
    expect(body.builds.map(({ number }) => number)).toEqual([2, 1]);
    expect(body.limits).toHaveLength(16);
    const moments = body.gaps.map(({ at }) => Date.parse(at));
    expect(moments).toEqual([...moments].sort((a, b) => a - b));
    expect(body.rechecks.filter(({ status }) => status === 'planned')).toHaveLength(1);
    expect(body.rechecks.filter(({ outcome }) => outcome !== null).length).toBeGreaterThan(2);
  });

  it('lists its spec sheets with what they are set by, and shows their limits in mm', async () => {
    const { body } = await shop.call<SheetSummary[]>(VIEWER, 'GET', 'sheets');
    expect(new Set(body.map(({ means }) => means))).toEqual(
      new Set(['screw', 'shim', 'pivot-nut', 'bucket', 'lash-cap']),
    );
    expect(new Set(body.map(({ layout }) => layout))).toEqual(new Set(['single', 'inline', 'v', 'flat']));
    const pump = body.find(({ name }) => name === 'HV2 Pumper')!;
    const { body: revisions } = await shop.call<SheetRevision[]>(VIEWER, 'GET', `sheets/${pump.id}`);
    expect(revisions.map(({ number }) => number)).toEqual([2, 1]);
    expect(revisions[1]!.limits).toMatchObject([
      { role: 'intake', min: 0.0762, max: 0.127 },
      { role: 'exhaust', min: 0.1016, max: 0.1778 },
    ]);
  });
});

describe('Today', () => {
  it('tells what was just written, to whoever asks next, however many ask', async () => {
    const build = await shop.buildOf('Frost fan 3, Lower Terrace');
    for (let time = 1; time <= 5; time += 1) {
      const complaint = `Uneven idle, told ${time} times`;
      const { version } = await shop.buildOf('Frost fan 3, Lower Terrace');
      const asked = Array.from({ length: 8 }, today);
      await shop.call(BENCH, 'PATCH', `builds/${build.id}`, { version, complaint, aim: 'middle' });
      await Promise.all(asked);
      const told = await Promise.all(Array.from({ length: 8 }, today));
      for (const { stages } of told) expect(stages[0]!.builds[0]!.complaint).toBe(complaint);
    }
  });

  it('lies in the first page for whoever is signed in, and cannot end the block it lies in', async () => {
    const root = await mkdtemp(join(tmpdir(), 'zero-lash-'));
    await writeFile(join(root, 'index.html'), '<body><div id="root"></div><!--ahead--></body>');
    const app = await buildApp({ db: shop.db, secret: 's'.repeat(40), webRoot: root, logLevel: 'silent' });
    try {
      const build = await shop.buildOf('Frost fan 3, Lower Terrace');
      const { version } = build;
      const complaint = 'Ticks </script><script>alert(1)</script>';
      await shop.call(BENCH, 'PATCH', `builds/${build.id}`, { version, complaint, aim: 'middle' });
      const stranger = await app.inject({ url: '/' });
      expect(stranger.body).toBe('<body><div id="root"></div></body>');
      const signedIn = await app.inject({
        method: 'POST',
        url: '/api/session',
        payload: { name: VIEWER, passphrase: 'only-looking-on' },
      });
      const cookie = cookiesOf(signedIn.headers['set-cookie']);
      const page = await app.inject({ url: '/', headers: { cookie } });
      expect(page.headers['cache-control']).toBe('no-store');
      const [, data] = /<script type="application\/json" id="preload">(.*?)<\/script>/s.exec(page.body)!;
      const laid = JSON.parse(data!) as { session: { person: { name: string } }; today: Today };
      expect(laid.session.person.name).toBe(VIEWER);
      expect(laid.today.stages[0]!.builds[0]!.complaint).toBe(complaint);
      // every page that the router has can be opened by its address, and reloaded
      for (const path of PAGES) {
        const answer = await app.inject({ url: path.replace(':id', 'anything') });
        expect([path, answer.statusCode, answer.body.includes('<div id="root">')]).toEqual([path, 200, true]);
      }
      expect((await app.inject({ url: '/no-such-page' })).statusCode).toBe(404);
    } finally {
      await app.close();
      await rm(root, { recursive: true });
    }
  });

  it('begins its day in the shop’s own zone', () => {
    const lateEvening = new Date('2031-06-30T22:30:00Z');
    expect(dayIn('UTC', lateEvening)).toBe('2031-06-30');
    expect(dayIn('Europe/Vienna', lateEvening)).toBe('2031-07-01');
  });
});

describe('a round and its stage', () => {
  it('keeps the conditions it was taken under, within reason', async () => {
    const build = await shop.buildOf('Frost fan 7, Chapel Slope');
    const put = (body: object) => shop.write(BENCH, 'POST', `rounds/${build.rounds[0]!.id}/conditions`, body);
    expect((await put({ engineTempC: 900, hoursSinceRun: 2 })).status).toBe(400);
    expect((await put({ engineTempC: 18, hoursSinceRun: -1 })).status).toBe(400);
    const kept = await put({ engineTempC: 18.5, hoursSinceRun: null });
    expect(kept.body.rounds[0]!.conditions.at(-1)).toMatchObject({ engineTempC: 18.5, hoursSinceRun: null });
  });

  it('keeps notes at any stage, and ticks only at its own', async () => {
    const build = await shop.buildOf('Fire pump, Brackwater');
    const note = await shop.write(BENCH, 'POST', `builds/${build.id}/notes`, {
      stage: 'take-in',
      text: '  Came without its dipstick  ',
    });
    expect(note.body.notes).toMatchObject([{ text: 'Came without its dipstick', by: BENCH }]);
    const tick = (stage: string, check: string, done = true) =>
      shop.call(BENCH, 'POST', `builds/${build.id}/ticks`, { stage, check, done });
    expect(await tick('take-in', 'cold', false)).toMatchObject({
      status: 409,
      body: { code: 'wrong_stage' },
    });
    // from a device that did not know it was ticked already, and that the build went on
    expect((await tick('take-in', 'cold')).status).toBe(200);
    expect(await tick('open-up', 'polish')).toMatchObject({ status: 422, body: { code: 'unknown_check' } });
    expect((await tick('open-up', 'gasket')).status).toBe(200);
    const empty = { stage: 'open-up', text: '   ' };
    expect((await shop.call(BENCH, 'POST', `builds/${build.id}/notes`, empty)).status).toBe(400);
  });

  it('takes a setting with what it needs, and supersedes the one before', async () => {
    const build = await shop.buildOf('Railcar 1, front engine');
    const set = (body: object) =>
      shop.write(BENCH, 'POST', `builds/${build.id}/settings`, { point: '4Eb', ...body });
    expect(await set({ kind: 'fitted', installed: 2.4 })).toMatchObject({
      status: 400,
      body: { detail: expect.stringMatching(/what was fitted/) },
    });
    expect((await set({ kind: 'left' })).status).toBe(400);
    expect((await set({ kind: 'fitted', installed: 2.5, fitted: 99 })).status).toBe(400);
    await set({ kind: 'fitted', installed: 2.5, fitted: 2.45, mark: '245' });
    const second = await set({ kind: 'fitted', installed: 2.45, fitted: 2.425 });
    const kept = second.body.settings.filter(({ point }) => point === '4Eb');
    expect(kept).toMatchObject([{ installed: 2.45, fitted: 2.425, by: BENCH }]);
    expect(await shop.db('settings').where({ build_id: build.id, point: '4Eb' })).toHaveLength(2);
  });

  it('wants a point set again that was found out at proving', async () => {
    const build = await shop.buildOf('Irrigation pump, Long Meadow');
    const move = (to: string, version: number) =>
      shop.write(BENCH, 'POST', `builds/${build.id}/stage`, { to, version });
    await shop.call(BENCH, 'POST', `rounds/${build.rounds.at(-1)!.id}/readings`, {
      point: '1E',
      reading: { kind: 'bracket', go: 0.2, noGo: 0.22 },
      asTyped: '0.20 0.22',
    });
    const back = await move('set', build.version);
    expect(back.status).toBe(200);
    const version = back.body.version as number;
    expect(await move('prove', version)).toMatchObject({
      status: 409,
      body: { code: 'stage_not_ready', points: ['1E'] },
    });
    await shop.call(BENCH, 'POST', `builds/${build.id}/settings`, {
      point: '1E',
      kind: 'turned',
      degrees: 50,
    });
    const proving = await move('prove', version);
    expect(proving.status).toBe(200);
    expect((proving.body as BuildView).rounds.at(-1)).toMatchObject({
      kind: 'proved',
      number: 2,
      readings: [],
    });
  });

  it('does not move while something is being measured, nor the other way round', async () => {
    const build = await shop.buildOf('Head saw, Pellow Mill');
    const back = await shop.write(BENCH, 'POST', `builds/${build.id}/stage`, {
      to: 'as-found',
      version: build.version,
    });
    const round = (back.body as BuildView).rounds.at(-1)!;
    const measure = (blade: number) =>
      shop.call(BENCH, 'POST', `rounds/${round.id}/readings`, {
        point: '1I',
        reading: { kind: 'drag', blade },
        asTyped: String(blade),
      });
    const move = shop.call(BENCH, 'POST', `builds/${build.id}/stage`, {
      to: 'wear',
      version: (back.body as BuildView).version,
    });
    const answers = await Promise.all([measure(0.1), move, measure(0.11), measure(0.12)]);
    for (const { status } of answers) expect([200, 201, 409]).toContain(status);
    expect(answers[1].status).toBe(200);
    expect(await measure(0.1)).toMatchObject({ status: 409, body: { code: 'wrong_stage' } });
  });
});
