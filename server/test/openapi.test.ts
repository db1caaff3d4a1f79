import { readFile } from 'node:fs/promises';
import { Validator } from '@seriousme/openapi-schema-validator';
import { afterAll, beforeAll, describe as about, expect, it } from 'vitest';
import type { OpenApiDocument } from '../openapi.ts';
import { routesOf } from '../routes.ts';
import { TestShop, VIEWER } from './shop.ts';

let shop: TestShop;
let document: OpenApiDocument;
beforeAll(async () => {
  shop = await TestShop.open();
  document = JSON.parse((await shop.raw(VIEWER, '/api/openapi.json')).body) as OpenApiDocument;
});
afterAll(() => shop.close());

/** Answers that are no JSON: a stream of events, and a drawing for the wall. */
const NO_JSON = new Set([
  'GET /api/live',
  'GET /api/sheet-revisions/:id/stop-card',
  'GET /api/builds/:id/parts-list',
  'GET /api/engines/:id/record',
  'GET /api/builds/:id/owner-sheet',
  'GET /api/builds/:id/measuring-sheet',
  'GET /api/engines/:id/label',
  'GET /api/sheet-revisions/:id/piece-chart',
  'GET /api/drawer/orders/:id/paper',
  'GET /api/photographs/:id',
  'GET /api/rechecks/:id/calendar',
  'GET /api/calendar/:token',
]);

about('the description of the routes', () => {
  it('is OpenAPI 3.1, and served to whoever is signed in', async () => {
    expect(document.openapi).toBe('3.1.0');
    const { valid, errors } = await new Validator().validate(structuredClone(document));
    expect(errors ?? []).toEqual([]);
    expect(valid).toBe(true);
    expect((await shop.call(null, 'GET', 'openapi.json')).status).toBe(401);
  });

  it('has every route in it, with what it takes, what it answers and how it refuses', () => {
    const routes = routesOf(shop.app).filter(
      (route) => / \/api\//.test(route) && !route.endsWith('/openapi.json'),
    );
    const described = Object.entries(document.paths).flatMap(([path, operations]) =>
      Object.keys(operations).map(
        (method) => `${method.toUpperCase()} ${path.replaceAll(/\{(\w+)\}/g, ':$1')}`,
      ),
    );
    expect(described.sort()).toEqual(routes.sort());
    for (const [path, operations] of Object.entries(document.paths))
      for (const [method, { responses, parameters = [] }] of Object.entries(operations)) {
        const name = `${method.toUpperCase()} ${path.replaceAll(/\{(\w+)\}/g, ':$1')}`;
        const answers = Object.entries(responses as Record<string, { content?: object }>);
        expect(
          answers.map(([status]) => status),
          name,
        ).toContain('default');
        const good = answers.find(([status]) => status.startsWith('2'));
        expect(good, name).toBeDefined();
        if (!NO_JSON.has(name) && good![0] !== '204') expect(good![1].content, name).toBeDefined();
        const keyed = (parameters as { name: string }[]).some((each) => each.name === 'idempotency-key');
        expect(keyed, name).toBe(method !== 'get' && name !== 'POST /api/session');
      }
  });

  it('stands in docs/ as the server gives it', async () => {
    const kept = await readFile(new URL('../../docs/openapi.json', import.meta.url), 'utf8');
    expect(JSON.parse(kept), 'npm run schema').toEqual(document);
  });
});
