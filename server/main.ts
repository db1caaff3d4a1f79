import { buildApp } from './app.ts';
import { connect, migrate } from './database.ts';
import { loadDemo } from './demo/load.ts';
import { DEMO_PEOPLE } from './demo/world.ts';
import { addFirstLead } from './people/firstLead.ts';
import { shopSecret } from './secret.ts';
import { tidy } from './tidy.ts';

const DEFAULT_PORT = 4510;

/** Starts the server on an existing database: migrates it, fills an empty one, and listens on loopback. */
async function main(): Promise<void> {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error('DATABASE_URL says which PostgreSQL to use; it is not set');
  const db = connect(url);
  await migrate(db);
  await tidy(db);
  const secret = await shopSecret(db, {
    name: process.env.SHOP_NAME ?? 'Engine works',
    zone: process.env.SHOP_ZONE ?? Intl.DateTimeFormat().resolvedOptions().timeZone,
  });
  if (process.env.ZERO_LASH_DEMO === 'yes') await loadDemo(db);
  const app = await buildApp({
    db,
    secret,
    ...(process.env.WEB_ROOT ? { webRoot: process.env.WEB_ROOT } : {}),
    ...(process.env.LOG_LEVEL ? { logLevel: process.env.LOG_LEVEL } : {}),
  });
  const address = await app.listen({
    port: Number(process.env.PORT ?? DEFAULT_PORT),
    host: process.env.HOST ?? '127.0.0.1',
  });
  const lead = await addFirstLead(db);
  process.stdout.write(`${greeting(address, await demoIsLoaded(db), lead)}\n`);
  const stop = () => {
    void app.close().then(() => db.destroy());
  };
  process.once('SIGINT', stop);
  process.once('SIGTERM', stop);
}

async function demoIsLoaded(db: ReturnType<typeof connect>): Promise<boolean> {
  const [first] = DEMO_PEOPLE;
  return Boolean(await db('people').where({ name: first!.name }).first('id'));
}

function greeting(address: string, demo: boolean, lead: { name: string; passphrase: string } | null) {
  const lines = [`Zero Lash is open at ${address}`];
  if (demo)
    for (const { name, role, passphrase } of DEMO_PEOPLE)
      lines.push(`  sign in as ${name} (${role}): ${passphrase}`);
  if (lead) lines.push(`  sign in as ${lead.name} (lead): ${lead.passphrase}`, '  Change it under Shop.');
  return lines.join('\n');
}

try {
  await main();
} catch (error) {
  const { code, port } = error as { code?: string; port?: number };
  if (code !== 'EADDRINUSE') throw error;
  process.stderr.write(
    `Port ${port} is taken: Zero Lash may be running in another window. PORT=${port! + 1} npm start uses another.\n`,
  );
  process.exit(1);
}
