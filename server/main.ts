import type { AddressInfo } from 'node:net';
import { isZone } from '@zero-lash/contract/values';
import type { FastifyInstance } from 'fastify';
import type { Knex } from 'knex';
import QRCode from 'qrcode';
import { buildApp } from './app.ts';
import { connect, migrate, oneServerAtATime } from './database.ts';
import { loadDemo } from './demo/load.ts';
import { DEMO_PEOPLE } from './demo/world.ts';
import { Startup } from './health/startup.ts';
import { addFirstLead } from './people/firstLead.ts';
import { ensureShop } from './people/store.ts';
import { isDatabaseAway } from './plugins/databaseErrors.ts';
import { mailboxIn, smtpAt } from './reminders/mailer.ts';
import { shopSecret } from './secret.ts';
import { share, type Shared } from './share/share.ts';

const DEFAULT_PORT = 4510;
const DEFAULT_SECRET_FILE = '.data/secret';
/** Where the certificate authority of a shared server is kept. */
const DEFAULT_SHARE_FOLDER = '.data/share';

/** What cannot be mended by starting again: whoever started this process need not try. */
class Unstartable extends Error {}
/** The exit code that says so. */
const UNSTARTABLE = 78;

/**
 * Starts the server on an existing database and listens on loopback. It listens first, and says on /api/health what it
 * waits for: a database that is not there yet is waited for, then migrated, and filled where it is empty.
 */
async function main(): Promise<void> {
  const settings = await readSettings();
  const db = connect(settings.url);
  const startup = new Startup();
  const app = await buildApp({
    db,
    startup,
    secret: settings.secret,
    trustProxy: process.env.TRUST_PROXY ?? false,
    jobs: settings.url,
    ...(process.env.SMTP_URL
      ? { mailer: smtpAt(process.env.SMTP_URL, process.env.MAIL_FROM) }
      : process.env.MAILBOX
        ? { mailer: mailboxIn(process.env.MAILBOX) }
        : {}),
    hosts: [...listed(process.env.HOSTS), ...listed(process.env.ZERO_LASH_SHARE_ADDRESSES)],
    ...(process.env.ZERO_LASH_BARE_ROUTE ? { bareRoute: true } : {}),
    ...(process.env.WEB_ROOT ? { webRoot: process.env.WEB_ROOT } : {}),
    ...(process.env.LOG_LEVEL ? { logLevel: process.env.LOG_LEVEL } : {}),
  });
  let stopping = false;
  let shared: Shared | null = null;
  const stop = () => {
    stopping = true;
    void Promise.all([app.close(), shared?.close()])
      .then(() => db.destroy())
      .finally(() => process.exit(0));
  };
  process.once('SIGINT', stop);
  process.once('SIGTERM', stop);
  const address = await app.listen({
    port: Number(process.env.PORT ?? DEFAULT_PORT),
    host: process.env.HOST ?? '127.0.0.1',
  });
  const { port } = app.server.address() as AddressInfo;
  if (process.env.ZERO_LASH_SHARE === 'yes') {
    shared = await shareAt(app, port + 1);
    app.sharedAt.address = shared.address;
  }
  let lead: Lead | null = null;
  await startup.wake(
    async () => {
      lead = await oneServerAtATime(db, () => prepare(settings));
    },
    (error) => !stopping && isDatabaseAway(error),
    (error) => say(`Waiting for the database: ${(error as Error).message}`),
  );
  say(greeting(address, await demoIsLoaded(db), lead));
  if (shared) say(await invitation(shared));
}

/** Shares the server on the shop's network, at the addresses the machine has or at those that are named. */
async function shareAt(app: FastifyInstance, port: number): Promise<Shared> {
  const named = listed(process.env.ZERO_LASH_SHARE_ADDRESSES);
  try {
    return await share(app, {
      port,
      folder: process.env.ZERO_LASH_SHARE_FOLDER ?? DEFAULT_SHARE_FOLDER,
      ...(named.length > 0 ? { addresses: named } : {}),
    });
  } catch (error) {
    if ((error as { code?: string }).code === 'EADDRINUSE') throw error;
    throw new Unstartable((error as Error).message);
  }
}

/** What stands in a setting that lists several. */
const listed = (text = '') =>
  text
    .toLowerCase()
    .split(/[\s,]+/)
    .filter(Boolean);

type Lead = { readonly name: string; readonly passphrase: string };

interface Settings {
  readonly url: string;
  readonly secret: string;
  readonly name: string;
  readonly zone: string;
  readonly demo: boolean;
}

async function readSettings(): Promise<Settings> {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Unstartable('DATABASE_URL says which PostgreSQL to use; it is not set');
  const zone = process.env.SHOP_ZONE ?? Intl.DateTimeFormat().resolvedOptions().timeZone;
  if (!isZone(zone))
    throw new Unstartable(`SHOP_ZONE is ${zone}, and there is no such time zone. Europe/Vienna is one.`);
  return {
    url,
    zone,
    secret: await readSecret(),
    name: process.env.SHOP_NAME ?? 'Engine works',
    demo: process.env.ZERO_LASH_DEMO === 'yes',
  };
}

async function readSecret(): Promise<string> {
  try {
    return await shopSecret(process.env.ZERO_LASH_SECRET_FILE ?? DEFAULT_SECRET_FILE);
  } catch (error) {
    throw new Unstartable((error as Error).message);
  }
}

/** Brings a database to where this program can work with it; gives the first lead of a shop that begins. */
async function prepare({ url, name, zone, demo }: Settings): Promise<Lead | null> {
  const db = connect(url, { poolSize: 2, patient: true });
  try {
    await migrate(db);
    await ensureShop(db, { name, zone });
    if (demo) await loadDemo(db);
    return await addFirstLead(db);
  } finally {
    await db.destroy();
  }
}

async function demoIsLoaded(db: Knex): Promise<boolean> {
  const [first] = DEMO_PEOPLE;
  return Boolean(await db('people').where({ name: first!.name }).first('id'));
}

function greeting(address: string, demo: boolean, lead: Lead | null): string {
  const lines = [`Zero Lash is open at ${address}`];
  if (demo)
    for (const { name, role, passphrase } of DEMO_PEOPLE)
      lines.push(`  sign in as ${name} (${role}): ${passphrase}`);
  if (lead) lines.push(`  sign in as ${lead.name} (lead): ${lead.passphrase}`, '  Change it under Shop.');
  return lines.join('\n');
}

/** What a tablet is told: where it learns to trust this server, and where the program is then. */
async function invitation({ address, trustAddress, fingerprint, limited }: Shared): Promise<string> {
  return [
    '',
    `Tablets of the shop: ${address}`,
    `A tablet that comes for the first time opens ${trustAddress} and takes the shop's certificate there:`,
    await QRCode.toString(trustAddress, { type: 'terminal', small: true }),
    'The certificate it is given has this fingerprint (SHA-256):',
    `  ${fingerprint}`,
    ...(limited
      ? []
      : [
          'It was made by an earlier release and could vouch for any site. Put away authority.json in the folder it is kept in for one',
          'that vouches for this machine alone; each tablet then takes the new certificate, and lets go of the old one.',
        ]),
  ].join('\n');
}

function say(text: string): void {
  process.stdout.write(`${text}\n`);
}

try {
  await main();
} catch (error) {
  const { code, port } = error as { code?: string; port?: number };
  if (code === 'EADDRINUSE')
    process.stderr.write(
      `Port ${port} is taken: Zero Lash may be running in another window. PORT=${port! + 1} npm start uses another.\n`,
    );
  else if (error instanceof Unstartable) process.stderr.write(`${error.message}\n`);
  else throw error;
  process.exit(UNSTARTABLE);
}
