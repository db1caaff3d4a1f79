import { readPdf } from './pdf.ts';
import { sheetFile, type SheetFile, type SheetRevision } from '@zero-lash/contract/sheets';
import type { Session } from '@zero-lash/contract/people';
import type { Today } from '@zero-lash/contract/today';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { DEMO_SHEETS } from '../demo/sheets/index.ts';
import { BENCH, LEAD, TestShop, VIEWER } from './shop.ts';

const OTHER_LEAD = 'Osk Velland';
let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

const { body } = DEMO_SHEETS.sawSingle;
const fresh = (name: string, change: object = {}) => ({ maker: 'Vessany', name, body, ...change });
const draftOf = (name: string, who = BENCH) => shop.call<SheetRevision>(who, 'POST', 'sheets', fresh(name));

describe('a spec sheet', () => {
  it('is refused with min above max, roles without limits or with two, or cylinders that are not there', async () => {
    const upside = {
      ...body,
      limits: [{ role: 'intake', min: 0.2, max: 0.1, asWritten: '' }, body.limits[1]],
    };
    expect(await shop.call(LEAD, 'POST', 'sheets', fresh('S2', { body: upside }))).toMatchObject({
      status: 400,
      body: { code: 'invalid', detail: expect.stringMatching(/limits\.0\.max: the greatest/) },
    });
    for (const [limits, answer] of [
      [
        [body.limits[0]],
        { status: 400, body: { code: 'invalid', detail: expect.stringMatching(/missing for exhaust/) } },
      ],
      [[...body.limits, body.limits[0]], { status: 400, body: { code: 'invalid' } }],
    ] as const)
      expect(
        await shop.call(LEAD, 'POST', 'sheets', fresh('S2', { body: { ...body, limits } })),
      ).toMatchObject(answer);
    const brakes = [{ cylinder: '7', opens: 300, closes: 380 }];
    expect(
      await shop.call(
        LEAD,
        'POST',
        'sheets',
        fresh('S2', { body: { ...body, pattern: { ...body.pattern, brakes } } }),
      ),
    ).toMatchObject({ status: 400, body: { detail: expect.stringMatching(/no cylinder 7/) } });
    expect(await shop.db('sheets').where({ name: 'S2' })).toEqual([]);
  });

  it('is changed as a draft, checked by a second person, and fixed from then on', async () => {
    expect((await draftOf('S3', VIEWER)).status).toBe(403);
    const { body: draft } = await draftOf('S3', LEAD);
    expect(draft).toMatchObject({ status: 'draft', number: 1, enteredBy: LEAD, version: 1 });
    const change = { maker: 'Vessany', name: 'S3 Sawyer', body: { ...body, notes: 'read twice' } };
    const changed = await shop.call<SheetRevision>(LEAD, 'PUT', `sheet-revisions/${draft.id}`, {
      ...change,
      version: 1,
    });
    expect(changed.body).toMatchObject({ name: 'S3 Sawyer', notes: 'read twice', version: 2 });
    expect(
      await shop.call(BENCH, 'PUT', `sheet-revisions/${draft.id}`, { ...change, version: 1 }),
    ).toMatchObject({ status: 409, body: { code: 'stale', current: { version: 2 } } });

    const publish = (who: string, version = 2) =>
      shop.call(who, 'POST', `sheet-revisions/${draft.id}/publication`, { version });
    expect(await publish(OTHER_LEAD, 1)).toMatchObject({
      status: 409,
      body: { code: 'stale', current: { version: 2, notes: 'read twice' } },
    });
    expect(await publish(BENCH)).toMatchObject({ status: 403 });
    expect(await publish(LEAD)).toMatchObject({ status: 409, body: { code: 'second_person' } });
    expect(await publish(OTHER_LEAD)).toMatchObject({
      status: 201,
      body: { status: 'published', enteredBy: LEAD, checkedBy: OTHER_LEAD },
    });
    expect(await publish(OTHER_LEAD)).toMatchObject({ status: 409, body: { code: 'fixed' } });
    expect(
      await shop.call(LEAD, 'PUT', `sheet-revisions/${draft.id}`, { ...change, version: 2 }),
    ).toMatchObject({ status: 409, body: { code: 'fixed' } });
    await expect(
      shop.db('sheet_limits').where({ revision_id: draft.id }).update({ min_tenths: 1 }),
    ).rejects.toThrow(/immutable/);
  });

  it('is checked by the only lead where a shop has no other', async () => {
    const others = shop.db('people').where({ name: OTHER_LEAD });
    await others.clone().update({ active: false });
    const { body: draft } = await draftOf('S4', LEAD);
    expect(
      (await shop.call(LEAD, 'POST', `sheet-revisions/${draft.id}/publication`, { version: 1 })).status,
    ).toBe(201);
    // who looks at the drawing next month knows that one pair of eyes saw it
    const now = async () =>
      (await shop.call<SheetRevision[]>(VIEWER, 'GET', `sheets/${draft.sheetId}`)).body[0]!;
    expect(await now()).toMatchObject({ checkedBy: LEAD, writers: [LEAD], readBy: null });
    const waits = async () => (await shop.call<Today>(VIEWER, 'GET', 'today')).body.drafts;
    expect(await waits()).toContainEqual({
      ...{ sheetId: draft.sheetId, name: 'Vessany S4', number: 1, published: true, writers: [LEAD] },
    });
    const session = async (who: string) => (await shop.call<Session>(who, 'GET', 'session')).body.soleLead;
    expect(await session(LEAD)).toBe(true);
    await others.clone().update({ active: true });
    expect([await session(LEAD), await session(BENCH)]).toEqual([false, false]);
    const read = (who: string) => shop.call(who, 'POST', `sheet-revisions/${draft.id}/second-reading`);
    expect(await read(BENCH)).toMatchObject({ status: 403 });
    expect(await read(LEAD)).toMatchObject({ status: 409, body: { code: 'second_person' } });
    expect(await read(OTHER_LEAD)).toMatchObject({ status: 200, body: { readBy: OTHER_LEAD } });
    expect(await read(OTHER_LEAD)).toMatchObject({ status: 409, body: { code: 'fixed' } });
    expect(await now()).toMatchObject({ checkedBy: LEAD, readBy: OTHER_LEAD });
    expect(await waits()).not.toContainEqual(expect.objectContaining({ sheetId: draft.sheetId }));
  });

  it('is revised one draft at a time, and an open build stays on its own revision', async () => {
    const build = await shop.buildOf('Head saw, Pellow Mill');
    const { sheetId, id: standsOn } = build.sheet;
    const revise = () =>
      shop.call<SheetRevision>(BENCH, 'POST', `sheets/${sheetId}/revisions`, {
        body: { ...body, notes: 'second printing' },
      });
    const { body: draft } = await revise();
    expect(draft).toMatchObject({ number: 2, status: 'draft' });
    expect(await revise()).toMatchObject({
      status: 409,
      body: { code: 'draft_open', current: { id: draft.id } },
    });
    expect(
      await shop.call(BENCH, 'PUT', `sheet-revisions/${draft.id}`, {
        maker: 'Vessany',
        name: 'Another name',
        body,
        version: 1,
      }),
    ).toMatchObject({ status: 409, body: { code: 'fixed' } });
    await shop.call(LEAD, 'POST', `sheet-revisions/${draft.id}/publication`, { version: 1 });
    const still = await shop.build(build.id);
    expect(still.sheet).toMatchObject({ id: standsOn, number: 1 });
  });

  it('goes out as a file and comes in equal', async () => {
    const revision = (await shop.buildOf('Snow groomer 2')).sheet;
    const out = await shop.call<SheetFile>(VIEWER, 'GET', `sheet-revisions/${revision.id}/file`);
    expect(out.headers['content-disposition']).toContain('Hadderby G6 Groomer.json');
    const { maker, name, format: _format, formatVersion: _version, ...read } = sheetFile.parse(out.body);
    const { body: copy } = await shop.call<SheetRevision>(BENCH, 'POST', 'sheets', {
      maker,
      name: `${name} copy`,
      body: read,
    });
    const back = await shop.call<SheetFile>(VIEWER, 'GET', `sheet-revisions/${copy.id}/file`);
    expect(back.body).toEqual({ ...out.body, name: `${name} copy` });
  });

  it('refuses more valves than any engine has, however many', async () => {
    const { body } = await shop.call<SheetFile>(
      VIEWER,
      'GET',
      `sheet-revisions/${(await shop.buildOf('Edger, Pellow Mill')).sheet.id}/file`,
    );
    for (const exhaust of [3, 50, 2.3e242, -1, 0.5])
      expect(
        await shop.call(LEAD, 'POST', 'sheets', {
          ...{ name: 'Many valves', maker: 'Vessany' },
          body: { ...body, pattern: { ...body.pattern, valves: { intake: 1, exhaust } } },
        }),
        String(exhaust),
      ).toMatchObject({ status: 400, body: { fields: [{ path: 'body.pattern.valves.exhaust' }] } });
  });

  it('prints a stop card by every school, and refuses a school there is not', async () => {
    const { id } = (await shop.buildOf('Summit drive, Kestrel Ridge')).sheet;
    const path = `/api/sheet-revisions/${id}/stop-card`;
    const { headers } = await shop.call(VIEWER, 'GET', `sheet-revisions/${id}/file`);
    expect(headers['content-type']).toContain('application/json');
    for (const school of ['fewest', 'each-firing', 'companion', 'open-pair', 'lobe-away']) {
      const card = await shop.raw(VIEWER, `${path}?school=${school}`);
      expect(card.headers['content-type']).toBe('application/pdf');
      expect(card.rawPayload.subarray(0, 5).toString()).toBe('%PDF-');
      expect(card.rawPayload.byteLength).toBeGreaterThan(3000);
      const { embedded, tagged, parts } = await readPdf(card.rawPayload);
      expect([embedded, tagged]).toEqual([true, true]);
      expect(parts).toContain('Figure');
    }
    expect((await shop.raw(VIEWER, `${path}?school=guess`)).statusCode).toBe(400);
  });
});

describe('where the crank is', () => {
  it('is kept with the round, and marks a reading taken off the base circle', async () => {
    const build = await shop.buildOf('Snow groomer 2');
    const round = build.rounds.at(-1)!;
    expect(round.turning).toEqual({ school: null, at: null, done: [] });
    const turning = { school: 'companion', at: 120, done: [0] };
    const turned = await shop.write(BENCH, 'PUT', `rounds/${round.id}/turning`, turning);
    expect(turned.body.rounds.at(-1)!.turning).toEqual(turning);
    expect(
      await shop.call(BENCH, 'PUT', `rounds/${round.id}/turning`, { ...turning, at: 720 }),
    ).toMatchObject({ status: 400, body: { code: 'invalid' } });

    const measure = (point: string, crankAngle: number | null) =>
      shop.read(BENCH, round.id, {
        point,
        reading: { kind: 'bracket', go: 0.55, noGo: 0.6 },
        asTyped: '0.55 0.6',
        crankAngle,
      });
    expect((await measure('6E', 360)).body).toMatchObject({ crankAngle: 360, offBase: false });
    expect((await measure('6E', 180 + 360)).body).toMatchObject({ crankAngle: 540, offBase: true });
    expect((await measure('6E', null)).body).toMatchObject({ crankAngle: null, offBase: false });
  });
});

describe('whoever wrote at a draft', () => {
  it('does not check it, though somebody else kept it last', async () => {
    const sheet = { maker: 'Vessany', name: 'Two hands', body: DEMO_SHEETS.sawSingle.body };
    const { body: draft } = await shop.call<SheetRevision>(LEAD, 'POST', 'sheets', sheet);
    const again = await shop.call<SheetRevision>(BENCH, 'PUT', `sheet-revisions/${draft.id}`, {
      ...{ ...sheet, version: draft.version },
    });
    const publish = (who: string) =>
      shop.call(who, 'POST', `sheet-revisions/${draft.id}/publication`, { version: again.body.version });
    expect(await publish(LEAD)).toMatchObject({ status: 409, body: { code: 'second_person' } });
    expect((await publish('Osk Velland')).status).toBe(201);
    await expect(
      shop.db('sheet_limits').insert({
        ...{ revision_id: draft.id, role: 'brake', min_tenths: 1000, max_tenths: 2000 },
      }),
    ).rejects.toThrow(/immutable/);
    await expect(
      shop.db('lash_points').insert({
        ...{ revision_id: draft.id, key: '9I', ordinal: 99, cylinder: '9', role: 'intake' },
      }),
    ).rejects.toThrow(/immutable/);
  });
});
