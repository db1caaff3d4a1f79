import { writeFileSync } from 'node:fs';
import { ensurePackages, ROOT } from './packages.mjs';

ensurePackages();
const { register } = await import('tsx/esm/api');
register();
const { sheetSchema } = await import('../contract/sheetSchema.ts');
const { recordSchema } = await import('../contract/recordSchema.ts');
const { format, resolveConfig } = await import('prettier');
const { buildApp } = await import('../server/app.ts');
const { connect } = await import('../server/database.ts');
const { describe } = await import('../server/openapi.ts');

async function put(name, value) {
  const place = `${ROOT}docs/${name}`;
  const options = await resolveConfig(place);
  writeFileSync(place, await format(JSON.stringify(value), { ...options, filepath: place }));
}

await put('sheet.schema.json', sheetSchema());
await put('record.schema.json', recordSchema());
// the routes are described without any database: nothing is asked of it
const db = connect('postgres://nobody@127.0.0.1:1/none');
const app = await buildApp({ db, secret: 'described, and never used for anything', logLevel: 'silent' });
await app.ready();
await put('openapi.json', describe(app));
await app.close();
await db.destroy();
