import { writeFileSync } from 'node:fs';
import { ensureDatabase, startCluster } from './database.mjs';
import { loadMigrations } from './migrations.mjs';
import { ensurePackages, ROOT } from './packages.mjs';
import { tableTypes } from './tableTypes.mjs';

ensurePackages();
const { register } = await import('tsx/esm/api');
register();
const { sheetSchema } = await import('../contract/sheetSchema.ts');
const { recordSchema } = await import('../contract/recordSchema.ts');
const { format, resolveConfig } = await import('prettier');
const { buildApp } = await import('../server/app.ts');
const { connect } = await import('../server/database.ts');
const { describe } = await import('../server/openapi.ts');

async function put(name, text) {
  const place = `${ROOT}${name}`;
  const options = await resolveConfig(place);
  writeFileSync(place, await format(text, { ...options, filepath: place }));
}
const putJson = (name, value) => put(`docs/${name}`, JSON.stringify(value));

await putJson('sheet.schema.json', sheetSchema());
await putJson('record.schema.json', recordSchema());
// the routes are described without any database: nothing is asked of it
const db = connect('postgres://nobody@127.0.0.1:1/none');
const app = await buildApp({ db, secret: 'described, and never used for anything', logLevel: 'silent' });
await app.ready();
await putJson('openapi.json', describe(app));
await app.close();
await db.destroy();

// a table's types are those of the database itself, as the migrations leave it
const cluster = await startCluster('.data/schema', { throwaway: true });
try {
  const url = await ensureDatabase(cluster, 'zero_lash_schema');
  await (await loadMigrations()).up(url);
  const migrated = connect(url);
  await put('server/tables.ts', await tableTypes(migrated));
  await migrated.destroy();
} finally {
  cluster.stop();
}
