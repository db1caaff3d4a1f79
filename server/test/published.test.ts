import { readFile } from 'node:fs/promises';
import { connect } from 'node:net';
import { Ajv2020, type ValidateFunction } from 'ajv/dist/2020.js';
import formats from 'ajv-formats';
import { strFromU8, unzipSync } from 'fflate';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TestShop, VIEWER } from './shop.ts';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

const published = async (name: string) =>
  JSON.parse(await readFile(new URL(`../../docs/${name}`, import.meta.url), 'utf8')) as object;

/** Says what a validator that is none of ours, without the extensions of one language, has against a file; null where nothing. */
async function against(name: string, file: unknown): Promise<unknown> {
  const ajv = new Ajv2020({ strict: false, unicodeRegExp: false });
  formats.default(ajv);
  ajv.addFormat('base64', /^[A-Za-z0-9+/]*={0,2}$/);
  const validate = known.get(name) ?? ajv.compile(await published(name));
  known.set(name, validate);
  return validate(file) ? null : validate.errors![0];
}
const known = new Map<string, ValidateFunction>();

/** Every pattern that stands in a schema. */
function patternsIn(schema: unknown): string[] {
  if (typeof schema !== 'object' || schema === null) return [];
  return Object.entries(schema).flatMap(([name, value]) =>
    name === 'pattern' && typeof value === 'string' ? [value] : patternsIn(value),
  );
}

describe('what is published of our files', () => {
  it.each(['openapi.json', 'sheet.schema.json', 'record.schema.json'])(
    'has patterns in %s that validators of other languages read',
    async (name) => {
      const patterns = [...new Set(patternsIn(await published(name)))];
      expect(patterns.length).toBeGreaterThan(2);
      for (const pattern of patterns) {
        // properties of characters, looking behind, names of groups and unlimited code points are one language's own
        expect(pattern).not.toMatch(/\\[pPkG]|\(\?<|\\u\{|\\x\{|\(\?[a-z]/);
        expect(() => new RegExp(pattern), pattern).not.toThrow();
      }
    },
  );

  it('is what a record is written by, and a changed one is found out', async () => {
    const build = await shop.buildOf('Frost fan 12, Quarry Rows');
    const { rawPayload } = await shop.raw(VIEWER, `/api/engines/${build.engine.id}/record`);
    const record = JSON.parse(strFromU8(unzipSync(rawPayload)['record.json']!)) as {
      tables: { engines: { name: unknown }[] };
    };
    expect(await against('record.schema.json', record)).toBeNull();
    record.tables.engines[0]!.name = 3;
    expect(await against('record.schema.json', record)).toMatchObject({
      instancePath: '/tables/engines/0/name',
    });
  });

  it('is what the file of every sheet of the demo is written by', async () => {
    const revisions = (await shop.db('sheet_revisions').pluck('id')) as string[];
    expect(revisions.length).toBeGreaterThan(8);
    for (const id of revisions) {
      const file = (await shop.raw(VIEWER, `/api/sheet-revisions/${id}/file`)).json<object>();
      expect(await against('sheet.schema.json', file), id).toBeNull();
      expect(await against('sheet.schema.json', { ...file, pattern: null })).not.toBeNull();
    }
  });

  it('holds while a server closes: who comes by a connection that is still in use is answered as ever', async () => {
    const app = await TestShop.server(shop.db);
    const { port } = new URL(await app.listen({ port: 0, host: '127.0.0.1' }));
    const socket = connect(Number(port), '127.0.0.1');
    let said = '';
    socket.on('data', (chunk: Buffer) => (said += chunk.toString()));
    const over = new Promise((resolve) => socket.once('close', resolve));
    const body = JSON.stringify({ name: 'Nobody', passphrase: 'nothing at all' });
    const head = `host: localhost\r\ncontent-type: application/json\r\n`;
    // one is on its way as the server is told to close, and another comes behind it
    socket.write(
      `POST /api/session HTTP/1.1\r\n${head}content-length: ${body.length}\r\n\r\n${body.slice(0, 5)}`,
    );
    const connections = () =>
      new Promise((resolve) => app.server.getConnections((_error, count) => resolve(count)));
    await expect.poll(connections).toBe(1);
    const closed = app.close();
    await expect.poll(() => app.server.listening).toBe(false);
    socket.write(`${body.slice(5)}GET /api/today HTTP/1.1\r\n${head}connection: close\r\n\r\n`);
    await over;
    await closed;
    const types = said.match(/^content-type: .*$/gim) ?? [];
    expect(said).toMatch(/^HTTP\/1\.1 401/);
    expect(types.filter((type) => !type.includes('application/problem+json'))).toEqual([]);
  });

  it('is not served otherwise: the file of a sheet keeps its pattern in the description of its route', async () => {
    const { paths } = (await published('openapi.json')) as {
      paths: Record<
        string,
        { get: { responses: Record<string, { content: Record<string, { schema: object }> }> } }
      >;
    };
    const { schema } =
      paths['/api/sheet-revisions/{id}/file']!.get.responses['200']!.content['application/json']!;
    expect(schema).toMatchObject({ properties: { format: {}, pattern: { $ref: expect.any(String) } } });
  });
});
