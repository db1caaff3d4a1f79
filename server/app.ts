import { PAGES } from '@zero-lash/contract/pages';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import helmet from '@fastify/helmet';
import files from '@fastify/static';
import Fastify, { type FastifyInstance } from 'fastify';
import { validatorCompiler } from 'fastify-type-provider-zod';
import type { Knex } from 'knex';
import { answers, type AnswerWatch } from './answers.ts';
import { api } from './api.ts';
import { everySoOften, inBackground } from './background.ts';
import { ASK_EVERY_MS, clock } from './clock.ts';
import { GaugeListener } from './gauges/listener.ts';
import { Startup } from './health/startup.ts';
import { healthRoutes } from './health/routes.ts';
import { TRY_EVERY_MS, writes } from './plugins/writeHealth.ts';
import { LiveBus } from './plugins/bus.ts';
import { openApi } from './openapi.ts';
import { database } from './plugins/database.ts';
import { answerError, errors } from './plugins/errors.ts';
import { answerClientError, answerExpectations } from './plugins/lowHttp.ts';
import { signIn } from './plugins/signIn.ts';
import { ownHosts } from './share/hosts.ts';
import { startJobs, type Jobs } from './jobs.ts';
import { mailboxIn, type Mailer } from './reminders/mailer.ts';
import { SUM_EVERY_MS, sumTableChanges } from './tableVersions.ts';
import { cleanUp, CLEANUP_EVERY_MS } from './cleanup.ts';
import { FEED_EVERY_MS, takeFeed } from './usage/feed.ts';
import { firstPage } from './today/firstPage.ts';

const MOST_BYTES = 256 * 1024;
/** How long a server that is closed waits for what is being answered. */
const LET_GO_AFTER_MS = 2000;
/** Where the simulated mailbox is. */
const MAILBOX = '.data/mailbox';
const YEAR_SECONDS = 31_536_000;
/** How long a request may take to come in whole, and the part of that after which it is looked at again. */
const RECEIVED_WITHIN_MS = 30_000;
const LOOKS = 6;

/** What a server is built from. */
export interface AppOptions {
  readonly db: Knex;
  /** signs cookies and keys what is hashed; at least 32 characters, kept outside the database */
  readonly secret: string;
  /** the built web application; without it only the API answers */
  readonly webRoot?: string;
  readonly logLevel?: string;
  /** what has to be done before it can work; without it, it is ready at once */
  readonly startup?: Startup;
  /** names it is reached by besides its own, such as that of a proxy before it */
  readonly hosts?: readonly string[];
  /** the proxies whose word on a caller's address is believed, as Fastify's `trustProxy` takes it */
  readonly trustProxy?: string | false;
  /** is shown every answer before it goes out */
  readonly watchAnswers?: AnswerWatch;
  /** carries reminders out; into a simulated mailbox in a folder of the program's own where it is left out */
  readonly mailer?: Mailer;
  /** the database that the shop's jobs are kept in; without it nothing is done by the clock */
  readonly jobs?: string;
  /** has a route that runs `select 1` and nothing else, which others are measured by */
  readonly bareRoute?: boolean;
  /** ms in which a request has to come in whole; half a minute where it is left out */
  readonly receivedWithinMs?: number;
}

/**
 * Builds the server, ready to listen or to be called in a test.
 *
 * @example const app = await buildApp({ db, secret }); await app.listen({ port: 4510 });
 */
export async function buildApp(options: AppOptions): Promise<FastifyInstance> {
  const { startup = new Startup(true), receivedWithinMs = RECEIVED_WITHIN_MS } = options;
  const app = Fastify({
    logger: { level: options.logLevel ?? 'warn' },
    bodyLimit: MOST_BYTES,
    trustProxy: options.trustProxy ?? false,
    requestTimeout: receivedWithinMs,
    http: { connectionsCheckingInterval: receivedWithinMs / LOOKS, headersTimeout: receivedWithinMs },
    frameworkErrors: answerError,
    // who comes while it closes is answered as ever, and not in words of the framework's own
    return503OnClosing: false,
    clientErrorHandler: answerClientError,
  });
  app.decorate('sharedAt', { address: '' });
  answerExpectations(app.server);
  app.setValidatorCompiler(validatorCompiler);
  answers(app, options.watchAnswers);
  await app.register(errors);
  await app.register(ownHosts, { told: options.hosts ?? [] });
  await app.register(openApi);
  await app.register(database, { db: options.db, secret: options.secret });
  await app.register(helmet, {
    contentSecurityPolicy: {
      useDefaults: true,
      directives: {
        'script-src': ["'self'"],
        'style-src': ["'self'", "'unsafe-inline'"],
        'upgrade-insecure-requests': null,
      },
    },
    strictTransportSecurity: false,
  });
  await app.register(healthRoutes, { startup });
  if (options.bareRoute)
    app.get('/api/bare', { schema: { hide: true }, config: { open: true }, logLevel: 'silent' }, async () => {
      await app.db.raw('select 1');
      return { ok: true };
    });
  const mailer = options.mailer ?? mailboxIn(MAILBOX);
  const bus = new LiveBus(app.db, app.log);
  const listener = new GaugeListener(app.db, bus, app.log);
  const web = options.webRoot && existsSync(join(options.webRoot, 'index.html')) ? options.webRoot : null;
  await app.register(async (known) => {
    await known.register(signIn);
    await known.register(api, { prefix: '/api', startup, bus, listener, mailer });
    if (web) await known.register(firstPage, { root: web });
  });
  if (web) await app.register(pages, { root: web });
  let closed = false;
  const stopped: (() => void)[] = [];
  let jobs: Promise<Jobs> | undefined;
  app.addHook('onReady', () => {
    bus.start();
    void startup.done.then(() => {
      if (closed) return;
      listener.start();
      stopped.push(everySoOften(app.log, 'asking for the time', ASK_EVERY_MS, () => clock.ask(app.db)));
      stopped.push(everySoOften(app.log, 'trying to write', TRY_EVERY_MS, () => writes.attempt(app.db)));
      stopped.push(everySoOften(app.log, 'tidying', CLEANUP_EVERY_MS, () => cleanUp(app.db)));
      stopped.push(everySoOften(app.log, 'adding up changes', SUM_EVERY_MS, () => sumTableChanges(app.db)));
      if (!options.jobs) return;
      stopped.push(everySoOften(app.log, 'the meter feed', FEED_EVERY_MS, () => takeFeed(app.db)));
      jobs = startJobs(options.jobs, { db: app.db, mailer, log: app.log });
      inBackground(app.log, 'starting the jobs', jobs);
    });
  });
  // what is being answered is answered; whoever keeps a connection open for later is not waited for
  app.addHook('preClose', (next) => {
    setTimeout(() => app.server.closeAllConnections(), LET_GO_AFTER_MS).unref();
    next();
  });
  app.addHook('onClose', async () => {
    closed = true;
    for (const stop of stopped) stop();
    await jobs?.then(({ stop }) => stop()).catch(() => undefined);
    listener.stop();
    await bus.close();
  });
  return app;
}

/** Serves the application; a page's own address answers with the application too, so that it can be reloaded. */
async function pages(web: FastifyInstance, { root }: { readonly root: string }): Promise<void> {
  await web.register(files, {
    root,
    wildcard: false,
    index: false,
    preCompressed: true,
    setHeaders: (reply, path) => {
      const forever = path.includes('/assets/');
      void reply.header('cache-control', forever ? `public, max-age=${YEAR_SECONDS}, immutable` : 'no-cache');
    },
  });
  // the first page has what it shows already in it, and is served by itself
  for (const path of PAGES.filter((each) => each !== '/'))
    web.get(path, { config: { open: true } }, (_request, reply) => reply.sendFile('index.html'));
}
