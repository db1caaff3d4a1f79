import { randomUUID } from 'node:crypto';
import type { EngineRow } from '@zero-lash/contract/engines';
import type { ReadingRow } from '@zero-lash/contract/measuring';
import type { Shop } from '@zero-lash/contract/people';
import type { SheetRevision, SheetSummary } from '@zero-lash/contract/sheets';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { DEMO_SHEETS } from '../demo/sheets/index.ts';
import { readPdf } from './pdf.ts';
import { BENCH, LEAD, TestShop } from './shop.ts';
import { Work } from './worked.ts';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

/** A build on a new winding engine: one figure for a role, and two pairs for the other. */
async function winding(): Promise<Work> {
  const { body: sheets } = await shop.call<SheetSummary[]>(BENCH, 'GET', 'sheets');
  const { id: sheetId, revisionId } = sheets.find(({ name }) => name === 'L6 Winder')!;
  const { body: engine } = await shop.call<EngineRow>(BENCH, 'POST', 'engines', {
    ...{ name: `Winding engine ${randomUUID().slice(0, 8)}`, serial: '', owner: '', duty: '', usage: 10 },
    sheetId,
  });
  return Work.on(shop, '', { engineId: engine.id, revisionId });
}

/** The reading that stands at a point in the newest round. */
const standing = (work: Work, point: string): ReadingRow =>
  work.build.rounds.at(-1)!.readings.find((each) => each.point === point)!;

async function changeShop(change: Partial<Shop>) {
  const { body } = await shop.call<{ shop: Shop }>(LEAD, 'GET', 'session');
  return shop.call<Shop>(LEAD, 'PATCH', 'shop', { ...body.shop, ...change });
}

const RULE = { size: 0.35, upTo: { below: 0.03, above: 0.05 }, over: { below: 0.01, above: 0.02 } };

describe('limits as a source prints them', () => {
  it('are kept as they stand there: one figure without ends, two pairs, brackets, a second source', async () => {
    const { body: sheets } = await shop.call<SheetSummary[]>(BENCH, 'GET', 'sheets');
    const { revisionId } = sheets.find(({ name }) => name === 'L6 Winder')!;
    const { body: sheet } = await shop.call<SheetRevision>(BENCH, 'GET', `sheet-revisions/${revisionId}`);
    expect(sheet.limits).toMatchObject([
      { role: 'intake', min: null, max: null, figure: 0.3048, asWritten: '12 thou (0.30 mm)', also: [] },
      {
        ...{ role: 'exhaust', figure: 0.508, asWritten: '20 thou (0.51 mm)' },
        also: [{ kind: 'leave', min: 0.381, max: 0.635, figure: null, asWritten: '15 to 25 thou' }],
      },
    ]);
    expect(sheet.secondSource).toMatchObject({
      manual: 'Hadderby works letter 61',
      figures: 'exhaust 18 thou',
    });
    const { body: file } = await shop.call(BENCH, 'GET', `sheet-revisions/${revisionId}/file`);
    expect(file).toMatchObject({ formatVersion: 3, limits: sheet.limits, secondSource: sheet.secondSource });
  });

  it('judge as found by what is left alone, what is set by what it is set to, and at proving by whether it was touched', async () => {
    const work = await winding();
    await work.reach('as-found');
    expect((await work.measure('1I', 0.32)).status).toBe(201);
    expect(standing(work, '1I')).toMatchObject({
      verdict: 'in-spec',
      limits: { min: 0.2848, max: 0.3248, allowOver: 0 },
    });
    await work.measure('1E', 0.6);
    expect(standing(work, '1E')).toMatchObject({ verdict: 'in-spec', limits: { min: 0.381, max: 0.635 } });
    await work.measure('2E', 0.66);
    expect(standing(work, '2E').verdict).toBe('loose');
    for (const point of work.points.filter((each) => !['1I', '1E', '2E'].includes(each)))
      await work.measure(point);
    await work.reach('set');
    await work.set('2E');
    await work.measure('2E', 0.6);
    expect(standing(work, '2E')).toMatchObject({ verdict: 'loose', limits: { min: 0.488, max: 0.528 } });
    await work.measure('2E', 0.51);
    expect(standing(work, '2E').verdict).toBe('in-spec');
    await work.tickAll();
    expect(await work.go('prove')).toMatchObject({ status: 200 });
    await work.tickAll();
    await work.measure('2E', 0.6);
    expect(standing(work, '2E').verdict).toBe('loose');
    // nobody touched this one: it may be left where it was found
    await work.measure('1E', 0.6);
    expect(standing(work, '1E').verdict).toBe('in-spec');
    const paper = await shop.raw(LEAD, `/api/builds/${work.build.id}/owner-sheet`);
    const { text } = await readPdf(paper.rawPayload);
    // each beside what it is held against: one that was left as it was found, and one that was set
    expect(text).toMatch(/1E\s*0\.381–0\.635/);
    expect(text.replace(/\s+/g, ' ')).toMatch(/2E maker: 0\.508; shop: 0\.488–\s?0\.528/);
  });

  it('have the shop’s band as it was when the build was opened', async () => {
    const before = await winding();
    expect((await changeShop({ singleRule: RULE })).body).toMatchObject({ singleRule: RULE });
    const after = await winding();
    expect([before.build.singleRule, after.build.singleRule]).toEqual([null, RULE]);
    for (const [work, verdict] of [
      [before, 'loose'],
      [after, 'in-spec'],
    ] as const) {
      await work.reach('as-found');
      await work.measure('1I', 0.345);
      expect(standing(work, '1I').verdict).toBe(verdict);
    }
    const paper = await shop.raw(LEAD, `/api/builds/${after.build.id}/measuring-sheet`);
    const { text: printed } = await readPdf(paper.rawPayload);
    expect(printed).toMatch(/exhaust, left alone 0\.381–0\.635; set to\nmaker: 0\.508/);
    expect(printed).toMatch(/intake\nmaker: 0.3048; shop: 0.2748–0.3548/);
    expect((await changeShop({ singleRule: null })).body).toMatchObject({ singleRule: null });
  });

  it('have no band that is wider than their figure: of a sheet that is written, or of a shop that has one already', async () => {
    const { body } = DEMO_SHEETS.sawSingle;
    const tiny = { role: 'intake', figure: 0.02, min: null, max: null, asWritten: '0.02 mm' };
    const small = (name: string) => ({
      maker: 'Vessany',
      name,
      body: { ...body, limits: [tiny, body.limits[1]] },
    });
    const wide = { ...RULE, upTo: { below: 0.05, above: 0.05 } };
    await changeShop({ singleRule: wide });
    const refused = await shop.call(BENCH, 'POST', 'sheets', small('S8'));
    expect(refused).toMatchObject({ status: 400, body: { fields: [{ path: 'limits' }] } });
    expect(await shop.db('sheets').where({ name: 'S8' })).toEqual([]);
    await changeShop({ singleRule: null });
    expect((await shop.call(BENCH, 'POST', 'sheets', small('S9'))).status).toBe(201);
    expect(await changeShop({ singleRule: wide })).toMatchObject({
      ...{
        status: 400,
        body: { code: 'invalid', detail: expect.stringMatching(/Vessany S9 gives 0.02 mm alone/) },
      },
    });
    for (const wrong of [
      { figure: 0.3, min: 0.2, max: null, asWritten: '' },
      { figure: null, min: 0.2, max: null, asWritten: '' },
      { figure: 0, min: null, max: null, asWritten: '0' },
    ])
      expect(
        await shop.call(BENCH, 'POST', 'sheets', {
          ...small('S10'),
          body: { ...body, limits: [{ role: 'intake', ...wrong }, body.limits[1]] },
        }),
      ).toMatchObject({
        status: 400,
        body: { code: 'invalid', detail: expect.stringMatching(/limits\.0\./) },
      });
  });
});
