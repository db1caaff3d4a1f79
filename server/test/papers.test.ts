import type { RanOfBuild } from '@zero-lash/contract/ran';
import { checkKey, provenBy } from '@zero-lash/core/builds';
import { lashPoints } from '@zero-lash/core/sheets';
import { randomUUID } from 'node:crypto';
import { dayInWords } from '@zero-lash/core/rechecks';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readPdf } from './pdf.ts';
import { BENCH, LEAD, TestShop, VIEWER } from './shop.ts';
import { Work } from './worked.ts';

const SCREWS = 'Edger, Pellow Mill';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

const paper = async (path: string) => {
  const answer = await shop.raw(VIEWER, `/api/${path}`);
  expect([answer.statusCode, answer.headers['content-type']]).toEqual([200, 'application/pdf']);
  return readPdf(answer.rawPayload);
};

describe('the owner’s sheet', () => {
  it('says what was found, set and proved, who signed it and when to come again, on a page or two', async () => {
    const { id } = await shop.buildOf('Frost fan 1, Upper Terrace');
    const build = await shop.build(id);
    const read = await paper(`builds/${id}/owner-sheet`);
    expect(read.pages).toBeLessThanOrEqual(2);
    expect(read).toMatchObject({ embedded: true, tagged: true, language: 'en-GB' });
    expect(read.title).toBe('Frost fan 1, Upper Terrace: what was done');
    expect(read.parts).toEqual(expect.arrayContaining(['H1', 'H2', 'Figure', 'Table', 'TR', 'TH', 'TD']));
    for (const said of ['Sellend Orchards', 'Rebuild after the frost season', `Signed off by ${LEAD}`])
      expect(read.text).toContain(said);
    const proofs = provenBy(build);
    for (const { key } of lashPoints(build.sheet.pattern)) {
      const { lo, hi } = proofs.get(key)!;
      expect(read.text, key).toContain(`${lo.toFixed(2)}–${hi!.toFixed(2)} in spec`);
    }
    const planned = build.rechecks.find(({ status }) => status === 'planned')!;
    expect(read.text).toMatch(
      new RegExp(
        `Next check: by ${dayInWords(planned.dueDate!)}, [^.]*\\bat ${planned.dueUsage} hours, whichever is first\\.`,
      ),
    );
  });

  it('of a build that is not signed says so, in the unit of the shop, and of thirty-two valves stands on two pages', async () => {
    const { id } = await shop.buildOf('Irrigation pump, Long Meadow');
    expect((await paper(`builds/${id}/owner-sheet`)).text).toContain('Not signed off yet');
    const many = await shop.buildOf('Summit drive, Kestrel Ridge');
    const read = await paper(`builds/${many.id}/owner-sheet`);
    expect(read.pages).toBeLessThanOrEqual(2);
    await shop.db('shop').update({ unit: 'thou' });
    const inThou = await paper(`builds/${id}/owner-sheet`);
    await shop.db('shop').update({ unit: 'mm' });
    expect(inThou.text).toContain('Clearances, thou');
    expect((await shop.raw(VIEWER, `/api/builds/${randomUUID()}/owner-sheet`)).statusCode).toBe(404);
  });

  it('of names in other languages has their letters, and of an aim outside the band the caution', async () => {
    const work = await Work.on(shop, SCREWS);
    await work.reach('set');
    await shop.db('engines').where({ id: work.build.engine.id }).update({ owner: 'Žofie Ålund, Łąka' });
    const far = work.build.sheet.limits.map(({ role, max }) => ({ role, target: max! + 0.2 }));
    await shop.call(LEAD, 'PATCH', `builds/${work.build.id}`, {
      ...{
        version: work.build.version,
        complaint: 'Proof',
        aim: 'own',
        ownAims: far,
        aimReason: 'for one race',
      },
    });
    const read = await paper(`builds/${work.build.id}/owner-sheet`);
    expect(read.text).toContain('Žofie Ålund, Łąka');
    expect(read.embedded).toBe(true);
    const { id, engine } = work.build;
    for (const path of [
      ...[`builds/${id}/owner-sheet`, `builds/${id}/parts-list`, `builds/${id}/measuring-sheet`],
      `engines/${engine.id}/label`,
    ])
      expect((await paper(path)).text.replaceAll('\n', ' '), path).toContain('because: for one race');
  });
});

describe('a blank measuring sheet', () => {
  it('has every point once, in the order of its stops, with its limits', async () => {
    const { id, sheet } = await shop.buildOf('Snow groomer 2');
    const read = await paper(`builds/${id}/measuring-sheet`);
    expect(read).toMatchObject({ embedded: true, tagged: true });
    for (const { key } of lashPoints(sheet.pattern))
      expect(read.text.match(new RegExp(`(^|\\n)${key}(?![\\w-])`, 'g')), key).toHaveLength(1);
    expect(read.text).toContain('Stop 1: Turn');
    const byHand = await paper(`builds/${id}/measuring-sheet?school=cam-by-hand`);
    expect(byHand.text).toContain('Each cam turned by itself');
    const refused = await shop.raw(VIEWER, `/api/builds/${id}/measuring-sheet?school=guess`);
    expect(refused.statusCode).toBe(400);
  });
});

describe('an engine’s label', () => {
  it('has no code at an address that leads nobody else here, and says where the shop’s own is given', async () => {
    const { engine } = await shop.buildOf('Frost fan 1, Upper Terrace');
    const read = await paper(`engines/${engine.id}/label`);
    expect(read.parts).not.toContain('Figure');
    expect(read.text.replaceAll('\n', ' ')).toContain('Give the shop’s address on the page Shop');
  });

  it('leads to its record at the address that the shop gives for itself', async () => {
    const { engine } = await shop.buildOf('Frost fan 1, Upper Terrace');
    const { body } = await shop.call<{ shop: { version: number } }>(LEAD, 'GET', 'session');
    const give = (address: string) => shop.call(LEAD, 'PATCH', 'shop', { ...body.shop, address });
    expect((await give('https://192.0.2.7:5181/engines')).status).toBe(400);
    expect((await give('https://192.0.2.7:5181')).status).toBe(200);
    const read = await paper(`engines/${engine.id}/label`);
    expect(read.text.replaceAll('\n', '')).toContain('https://192.0.2.7:5181/engines/');
    expect(read.pages).toBe(1);
    expect(read.text.replaceAll('\n', ' ')).toContain('Frost fan 1, Upper Terrace');
    expect(read.text.replaceAll('\n', '')).toMatch(new RegExp(`https?://[^/]+/engines/${engine.id}`));
    expect(read.parts).toContain('Figure');
    // of an engine that is gone there is none
    expect((await shop.raw(VIEWER, `/api/engines/${randomUUID()}/label`)).statusCode).toBe(404);
  });
});

describe('closing an engine', () => {
  const part = (change: object) => ({
    ...{ key: 'cover bolt, long', group: 'cover', name: 'Cover bolt, long', place: '', expected: 2 },
    ...{ out: 2, in: null, note: '', dropped: false },
    ...change,
  });

  it('is not signed off while the count does not balance, until it does or a lead wrote down why', async () => {
    const work = await Work.on(shop, SCREWS);
    await work.reach('close');
    await work.tickAll();
    await work.write('ledger', { lines: [part({ in: 1 })] });
    const refused = await work.signOff();
    expect(refused).toMatchObject({ status: 409, body: { code: 'not_provable' } });
    expect((refused.body as unknown as { detail: string }).detail).toContain('Cover bolt, long (1 missing)');
    expect((await work.tick('close', checkKey('ledger-explained'))).status).toBe(403);
    expect((await work.tick('set', checkKey('ledger-explained'), { who: LEAD })).body.code).toBe(
      'unknown_check',
    );
    expect((await work.tick('close', checkKey('ledger-explained'), { who: LEAD })).status).toBe(200);
    // what is counted after that is not explained by it
    await work.write('ledger', { lines: [part({ in: 0 })] });
    expect((await work.signOff()).status).toBe(409);
    await work.write('ledger', { lines: [part({ in: 2 })] });
    expect((await work.signOff()).status).toBe(201);

    const other = await Work.on(shop, SCREWS);
    await other.reach('close');
    await other.tickAll();
    await other.write('ledger', { lines: [part({ in: 3 })] });
    await other.tick('close', checkKey('ledger-explained'), { who: LEAD });
    expect((await other.signOff()).status).toBe(201);
  });

  it('is not signed off with a fastening half tightened, and what was never begun is no matter', async () => {
    const work = await Work.on(shop, 'Railcar 1, front engine');
    const row = work.build.sheet.torques.findIndex(({ fastening }) => fastening === 'Head nuts');
    const pass = (number: number) => `pass ${row}.${number}`;
    await work.reach('close');
    await work.tickAll();
    expect((await work.tick('prove', pass(0))).body.code).toBe('unknown_check');
    expect((await work.tick('close', pass(7))).body.code).toBe('unknown_check');
    expect((await work.tick('close', pass(0))).status).toBe(200);
    const refused = await work.signOff();
    expect(refused.status).toBe(409);
    expect((refused.body as unknown as { detail: string }).detail).toContain(
      'Head nuts, pass 2 of 2 (145 Nm)',
    );
    await work.tick('close', pass(1));
    expect((await work.signOff()).status).toBe(201);
  });

  it('once anything of it is put together, what may not be skipped is looked at before it is turned', async () => {
    const work = await Work.on(shop, 'Railcar 1, front engine');
    await work.reach('set');
    expect((await work.tick('prove', 'step 0')).body.code).toBe('unknown_check');
    expect((await work.tick('set', 'step 9')).body.code).toBe('unknown_check');
    await work.tick('set', 'step 3');
    const refused = await work.go('prove');
    expect(refused.status).toBe(409);
    expect((refused.body as unknown as { detail: string }).detail).toContain('19 pins of the chain');
    for (const step of [0, 1, 2]) await work.tick('set', `step ${step}`);
    expect((await work.go('prove')).status).toBe(200);
  });
});

describe('how an engine ran', () => {
  it('is written down once it is signed off, and its builds stand side by side', async () => {
    const work = await Work.on(shop, SCREWS);
    const ran = (line: object) =>
      work.write('ran', { lines: [{ kind: 'power', value: 41, unit: 'kW', text: '', ...line }] });
    await work.reach('close');
    expect((await ran({})).body.code).toBe('wrong_stage');
    await work.tickAll();
    await work.signOff();
    expect((await ran({})).status).toBe(201);
    expect((await ran({ kind: 'word', value: null, unit: '', text: 'starts at once' })).status).toBe(201);
    expect((await ran({ value: null })).status).toBe(400);
    // of what was found nothing is written there any more
    expect((await work.write('ledger', { lines: [] })).status).toBe(400);
    const engineId = work.build.engine.id;
    const next = await shop.write(BENCH, 'POST', `engines/${engineId}/builds`, {
      ...{ revisionId: work.build.sheet.id, complaint: 'Again' },
    });
    expect(next.status).toBe(201);
    const { body } = await shop.call<RanOfBuild[]>(VIEWER, 'GET', `engines/${engineId}/ran`);
    expect(body).toMatchObject([
      {
        number: 1,
        entries: [
          { by: BENCH, lines: [{ kind: 'power', value: 41, unit: 'kW' }] },
          { lines: [{ kind: 'word', text: 'starts at once' }] },
        ],
      },
    ]);
    expect((await shop.call(VIEWER, 'GET', `engines/${randomUUID()}/ran`)).status).toBe(404);
  });
});
