// Long because one shop is opened once and everything about it is tried there, one thing after the other.
import { randomUUID } from 'node:crypto';
import {
  engineSort,
  type EngineList,
  type EngineRow,
  type EngineSort,
  type EngineView,
} from '@zero-lash/contract/engines';
import type { SheetSummary } from '@zero-lash/contract/sheets';
import type { Today } from '@zero-lash/contract/today';
import { lashPoints } from '@zero-lash/core/sheets';
import { STAGE_KEYS, stageOf, type StageKey } from '@zero-lash/core/builds';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { BENCH, LEAD, TestShop, VIEWER, type BuildView } from './shop.ts';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

async function go(build: BuildView, to: StageKey) {
  await tickAll(build);
  return shop.write(BENCH, 'POST', `builds/${build.id}/stage`, { to, version: build.version });
}

const bracket = (go: number, noGo: number) => ({ kind: 'bracket', go, noGo });

/** Ticks everything of the stage a build is at. */
async function tickAll(build: BuildView): Promise<void> {
  for (const { key } of stageOf(build.stage).checks)
    await shop.call(BENCH, 'POST', `builds/${build.id}/ticks`, {
      stage: build.stage,
      check: key,
      done: true,
    });
  // a count over nothing wants a word
  if (stageOf(build.stage).demands.includes('counted'))
    await shop.call(BENCH, 'POST', `builds/${build.id}/notes`, {
      stage: build.stage,
      text: 'The cover alone.',
    });
}

async function measureAll(build: BuildView, go: number, noGo: number): Promise<void> {
  const round = build.rounds.at(-1)!;
  for (const { key } of lashPoints(build.sheet.pattern)) {
    const { status } = await shop.call(BENCH, 'POST', `rounds/${round.id}/readings`, {
      point: key,
      reading: bracket(go, noGo),
      asTyped: `${go} ${noGo}`,
    });
    expect(status).toBe(201);
  }
}

describe('the whole job', () => {
  it('goes from an engine on the stand to its second recheck', async () => {
    const sheets = await shop.call<SheetSummary[]>(BENCH, 'GET', 'sheets');
    const single = sheets.body.find(({ name }) => name === 'S1 Sawyer')!;
    const engine = await shop.call<EngineRow>(BENCH, 'POST', 'engines', {
      name: 'Test stand single',
      serial: 'T-1',
      owner: '',
      duty: '',
      sheetId: single.id,
      usage: 100,
    });
    expect(engine).toMatchObject({ status: 201, body: { usageUnit: 'starts', buildId: null } });
    const opened = await shop.write(BENCH, 'POST', `engines/${engine.body.id}/builds`, {
      revisionId: single.revisionId,
      complaint: 'Rebuild',
    });
    expect(opened.status).toBe(201);
    let build = opened.body as BuildView;
    for (const stage of ['open-up', 'as-found'] as const) build = (await go(build, stage)).body;
    await measureAll(build, 0.04, 0.06);
    for (const stage of ['wear', 'head-work', 'set'] as const) build = (await go(build, stage)).body;
    expect(build.rounds[0]!.readings.map(({ verdict }) => verdict)).toEqual(['tight', 'tight']);

    const early = await go(build, 'prove');
    expect(early).toMatchObject({ status: 409, body: { code: 'stage_not_ready', points: ['1I', '1E'] } });
    for (const point of ['1I', '1E'])
      await shop.call(BENCH, 'POST', `builds/${build.id}/settings`, { point, kind: 'turned', degrees: 30 });
    build = (await go(build, 'prove')).body;
    await tickAll(build);
    await measureAll(build, 0.1, 0.16);
    const undecided = await go(build, 'close');
    expect(undecided).toMatchObject({ status: 409, body: { code: 'stage_not_ready' } });
    const round = build.rounds.at(-1)!;
    for (const [point, from, to] of [
      ['1I', 0.1, 0.12],
      ['1E', 0.16, 0.18],
    ] as const)
      await shop.call(BENCH, 'POST', `rounds/${round.id}/readings`, {
        point,
        reading: bracket(from, to),
        asTyped: `${from} ${to}`,
      });
    build = (await go(build, 'close')).body;
    for (const { key } of stageOf('close').checks)
      build = (
        await shop.write(BENCH, 'POST', `builds/${build.id}/ticks`, {
          stage: 'close',
          check: key,
          done: true,
        })
      ).body;

    const byBench = await shop.call(BENCH, 'POST', `builds/${build.id}/sign-off`, {
      version: build.version,
      seq: build.seq,
    });
    expect(byBench).toMatchObject({ status: 403, body: { code: 'forbidden' } });
    // a signature names what it signs: what came in since is looked at first
    await shop.call(BENCH, 'POST', `builds/${build.id}/notes`, {
      stage: 'close',
      text: 'One bolt was short.',
    });
    for (const check of ['cover', 'first-start', 'counted-in', 'cover'])
      await shop.call(BENCH, 'POST', `builds/${build.id}/ticks`, { stage: 'close', check, done: true });
    const unseen = { version: build.version, seq: build.seq };
    expect(await shop.call(LEAD, 'POST', `builds/${build.id}/sign-off`, unseen)).toMatchObject({
      status: 409,
      body: {
        code: 'came_in_since',
        detail: expect.stringMatching(
          /^5 more entries have come in since this page was read: (?=.*: notes at Close and sign off).*: ticks at Close and sign off/,
        ),
      },
    });
    const ahead = { version: build.version, seq: build.seq + 50 };
    expect((await shop.call(LEAD, 'POST', `builds/${build.id}/sign-off`, ahead)).status).toBe(409);
    build = await shop.build(build.id);
    const signing = () =>
      shop.write(LEAD, 'POST', `builds/${build.id}/sign-off`, { version: build.version, seq: build.seq });
    const [first, second] = await Promise.all([signing(), signing()]);
    expect([first.status, second.status].sort()).toEqual([201, 409]);
    const loser = first.status === 409 ? first : second;
    expect(loser.body).toMatchObject({ code: 'already_signed_off' });
    build = await shop.build(build.id);
    expect(build).toMatchObject({ stage: 'run-in', signOff: { by: LEAD, usage: 100 } });
    expect(build.rechecks).toMatchObject([
      { sequence: 1, dueUsage: 120, status: 'planned', state: 'coming' },
    ]);

    await shop.call(BENCH, 'POST', `engines/${engine.body.id}/usages`, { usage: 121, sure: true });
    const today = await shop.call<Today>(VIEWER, 'GET', 'today');
    expect(today.body.rechecks.list).toContainEqual(
      expect.objectContaining({ engine: 'Test stand single', state: 'overdue', running: 121 }),
    );
    const recheck = build.rechecks[0]!;
    build = (await shop.write(BENCH, 'POST', `rechecks/${recheck.id}/round`, {})).body;
    const incomplete = await shop.call(BENCH, 'POST', `rechecks/${recheck.id}/outcome`);
    expect(incomplete).toMatchObject({
      status: 409,
      body: { code: 'recheck_incomplete', points: ['1I', '1E'] },
    });
    await measureAll(build, 0.14, 0.16);
    build = (await shop.write(BENCH, 'POST', `rechecks/${recheck.id}/outcome`)).body;
    expect(build.rechecks).toMatchObject([
      // at the edge of its band: the forecast looks sooner than the plan, a tenth of it at least
      { sequence: 2, status: 'planned', planUsage: 421, dueUsage: 151, byForecast: true },
      { sequence: 1, status: 'done', outcome: 'undecided', doneBy: BENCH },
    ]);
    const again = await shop.call(BENCH, 'POST', `rechecks/${recheck.id}/outcome`);
    expect(again).toMatchObject({ status: 409, body: { code: 'recheck_done' } });
  });

  it('keeps what was measured before when a point is measured again', async () => {
    const build = await shop.buildOf('Frost fan 7, Chapel Slope');
    const round = build.rounds[0]!;
    const send = (go: number, noGo: number, reason = '') =>
      shop.read(BENCH, round.id, {
        point: '4E',
        reading: bracket(go, noGo),
        asTyped: `${go} ${noGo}`,
        reason,
      });
    await send(0.3, 0.32);
    const second = await send(0.28, 0.3, 'oil on the blade');
    expect(second.body).toMatchObject({ verdict: 'tight', lo: 0.28, hi: 0.3, earlier: 1 });
    const history = await shop.call<{ asTyped: string; superseded: boolean; reason: string }[]>(
      VIEWER,
      'GET',
      `rounds/${round.id}/points/4E`,
    );
    expect(history.body).toMatchObject([
      { asTyped: '0.28 0.3', supersededBy: null, reason: 'oil on the blade' },
      { asTyped: '0.3 0.32', supersededBy: BENCH, supersededWhy: 'oil on the blade' },
    ]);
    await expect(shop.db('readings').where({ id: second.body.id }).update({ lo: 1 })).rejects.toThrow(
      /stays/,
    );
    await expect(shop.db('readings').where({ id: second.body.id }).delete()).rejects.toThrow(/stays/);
  });

  it('takes a reading back where nothing of it counts, so that nothing is known any more', async () => {
    const build = await shop.buildOf('Snow groomer 2');
    const { id } = build.rounds.at(-1)!;
    const tries = (...tried: object[]) => ({ kind: 'tries', tries: tried });
    const wont = { thickness: 0.05, result: 'wont' };
    const taken = { point: '1I', reading: tries(wont), asTyped: '0.05 won’t' };
    expect(await shop.read(BENCH, id, taken)).toMatchObject({
      status: 201,
      body: { verdict: 'tight' },
    });
    const back = { point: '1I', reading: tries(), asTyped: 'taken back', reason: 'a try taken back' };
    expect(await shop.read(BENCH, id, back)).toMatchObject({
      status: 201,
      body: { verdict: 'undecided', lo: 0, hi: null, reason: 'a try taken back' },
    });
  });

  it('writes once, however often it is sent with one key', async () => {
    const build = await shop.buildOf('Frost fan 7, Chapel Slope');
    const { id } = build.rounds[0]!;
    const body = { point: '3I', reading: { kind: 'drag', blade: 0.25 }, asTyped: '0.25' };
    const key = randomUUID();
    const answers = await Promise.all(Array.from({ length: 5 }, () => shop.read(BENCH, id, body, key)));
    expect(new Set(answers.map((answer) => answer.body.id)).size).toBe(1);
    const kept = await shop.db('readings').where({ round_id: build.rounds[0]!.id, point: '3I' });
    expect(kept).toHaveLength(1);
    const other = await shop.read(BENCH, id, { ...body, asTyped: '0.26' }, key);
    expect(other).toMatchObject({ status: 409, body: { code: 'key_reused' } });
  });

  it('keeps both of two readings written to one point at once', async () => {
    const build = await shop.buildOf('Frost fan 7, Chapel Slope');
    const roundId = build.rounds[0]!.id;
    const send = (blade: number) =>
      shop.call(BENCH, 'POST', `rounds/${roundId}/readings`, {
        point: '3E',
        reading: { kind: 'drag', blade },
        asTyped: String(blade),
      });
    const answers = await Promise.all([send(0.33), send(0.34), send(0.35)]);
    expect(answers.map(({ status }) => status)).toEqual([201, 201, 201]);
    const rows = await shop.db('readings').where({ round_id: roundId, point: '3E' });
    expect(rows).toHaveLength(3);
    expect(rows.filter(({ superseded }) => !superseded)).toHaveLength(1);
  });
});

describe('an engine', () => {
  it('refuses a stale edit and hands back the row as it stands', async () => {
    const { body } = await shop.call<{ engines: EngineRow[] }>(BENCH, 'GET', 'engines?search=shelf');
    const { id, version, name, serial, owner } = body.engines[0]!;
    const edit = (duty: string) =>
      shop.call<EngineRow>(BENCH, 'PATCH', `engines/${id}`, { version, name, serial, owner, duty });
    expect(await edit('spare for fan 2')).toMatchObject({ status: 200, body: { version: version + 1 } });
    expect(await edit('spare for fan 9')).toMatchObject({
      status: 409,
      body: { code: 'stale', current: { duty: 'spare for fan 2', version: version + 1 } },
    });
  });

  it('is found by any words, none of them a pattern', async () => {
    const find = async (search: string) =>
      (await shop.call<{ total: number }>(VIEWER, 'GET', `engines?search=${encodeURIComponent(search)}`)).body
        .total;
    expect(await find('pellow s1')).toBe(4);
    expect(await find('%')).toBe(0);
    expect(await find('_')).toBe(0);
  });

  it('is listed in the order asked for, page by page, over all there are', async () => {
    const all = (await shop.call<EngineList>(VIEWER, 'GET', 'engines?limit=500')).body;
    expect(all.engines).toHaveLength(all.total);
    const value = (row: EngineRow, sort: EngineSort): string | number | null => {
      if (sort === 'usage') return row.usage;
      if (sort === 'stage') return row.stage && STAGE_KEYS.indexOf(row.stage);
      if (sort === 'recheck')
        return row.recheck && ['not-held', 'overdue', 'due', 'coming', 'waiting'].indexOf(row.recheck.state);
      return row[sort].toLowerCase();
    };
    for (const sort of engineSort.options)
      for (const order of ['asc', 'desc']) {
        const pages: EngineRow[] = [];
        for (let offset = 0; offset < all.total; offset += 7)
          pages.push(
            ...(
              await shop.call<EngineList>(
                VIEWER,
                'GET',
                `engines?sort=${sort}&order=${order}&limit=7&offset=${offset}`,
              )
            ).body.engines,
          );
        expect(new Set(pages.map(({ id }) => id)).size, `${sort} ${order}`).toBe(all.total);
        const values = pages.map((row) => value(row, sort));
        const known = values.filter((one) => one !== null) as (string | number)[];
        expect(values.slice(0, known.length), `${sort} ${order}`).toEqual(known);
        const sorted = [...known].sort((a, b) => (a < b ? -1 : a > b ? 1 : 0));
        expect(known, `${sort} ${order}`).toEqual(order === 'asc' ? sorted : sorted.reverse());
      }
    for (const wrong of ['sort=nothing', 'order=up', 'limit=0', 'limit=501', 'offset=-1', 'offset=1e9'])
      expect((await shop.call(VIEWER, 'GET', `engines?${wrong}`)).status, wrong).toBe(400);
  });

  it('is found by what it is called now', async () => {
    const build = await shop.buildOf('Edger, Pellow Mill');
    const { body: engine } = await shop.call<EngineView>(VIEWER, 'GET', `engines/${build.engine.id}`);
    const { name, serial, owner, duty } = engine;
    const rename = (to: string, version: number) =>
      shop.call<EngineRow>(LEAD, 'PATCH', `engines/${engine.id}`, { name: to, serial, owner, duty, version });
    const find = async (words: string) =>
      (
        await shop.call<EngineList>(VIEWER, 'GET', `engines?search=${encodeURIComponent(words)}`)
      ).body.engines.map(({ id }) => id);
    const { body } = await rename('Zigzag SAW', engine.version);
    expect(await find('zigzag saw')).toEqual([engine.id]);
    expect(await find('ZIG')).toEqual([engine.id]);
    await rename(name, body.version);
    expect(await find('zigzag')).toEqual([]);
    expect(await find(name.toUpperCase())).toEqual([engine.id]);
  });

  it('takes a lower running figure only with a reason', async () => {
    const build = await shop.buildOf('Edger, Pellow Mill');
    const log = (body: object) => shop.call(BENCH, 'POST', `engines/${build.engine.id}/usages`, body);
    expect(await log({ usage: 3 })).toMatchObject({ status: 409, body: { code: 'usage_back' } });
    expect((await log({ usage: 3, reason: 'new meter' })).status).toBe(201);
  });

  it('has one build open at a time; a new one takes over from one that only waits', async () => {
    const open = async (engine: string) => {
      const build = await shop.buildOf(engine);
      return shop.write(BENCH, 'POST', `engines/${build.engine.id}/builds`, {
        revisionId: build.sheet.id,
        complaint: 'again',
      });
    };
    expect(await open('Frost fan 3, Lower Terrace')).toMatchObject({
      status: 409,
      body: { code: 'build_open' },
    });
    const before = await shop.buildOf('Trimmer, Pellow Mill');
    expect(await open('Trimmer, Pellow Mill')).toMatchObject({
      status: 201,
      body: { number: 2, stage: 'take-in' },
    });
    const old = await shop.build(before.id);
    expect(old.closedAt).not.toBeNull();
    expect(old.rechecks[0]?.status).toBe('dropped');
    const write = await shop.call(BENCH, 'POST', `builds/${before.id}/notes`, {
      stage: 'run-in',
      text: 'late',
    });
    expect(write).toMatchObject({ status: 409, body: { code: 'build_closed' } });
  });
});
