import { existsSync } from 'node:fs';
import { join } from 'node:path';
import helmet from '@fastify/helmet';
import files from '@fastify/static';
import Fastify, { type FastifyInstance } from 'fastify';
import { serializerCompiler, validatorCompiler } from 'fastify-type-provider-zod';
import type { Knex } from 'knex';
import { buildRoutes } from './builds/routes.ts';
import { engineRoutes } from './engines/routes.ts';
import { GaugeListener } from './gauges/listener.ts';
import { gaugeRoutes } from './gauges/routes.ts';
import { instrumentRoutes } from './instruments/routes.ts';
import { LiveBus } from './live/bus.ts';
import { liveRoutes } from './live/routes.ts';
import { peopleRoutes } from './people/routes.ts';
import { database } from './plugins/database.ts';
import { errors } from './plugins/errors.ts';
import { firstPage } from './today/firstPage.ts';
import { TodayKeeper } from './today/keeper.ts';
import { signIn } from './plugins/signIn.ts';
import { recheckRoutes } from './rechecks/routes.ts';
import { sheetRoutes } from './sheets/routes.ts';
import { todayRoutes } from './today/routes.ts';

const MOST_BYTES = 256 * 1024;
const YEAR_SECONDS = 31_536_000;

/** What a server is built from. */
export interface AppOptions {
  readonly db: Knex;
  /** signs the session cookie; at least 32 characters */
  readonly secret: string;
  /** the built web application; without it only the API answers */
  readonly webRoot?: string;
  readonly logLevel?: string;
}

/**
 * Builds the server, ready to listen or to be called in a test.
 *
 * @example const app = await buildApp({ db, secret }); await app.listen({ port: 4510 });
 */
export async function buildApp(options: AppOptions): Promise<FastifyInstance> {
  const app = Fastify({
    logger: { level: options.logLevel ?? 'warn' },
    bodyLimit: MOST_BYTES,
    trustProxy: false,
  });
  app.setValidatorCompiler(validatorCompiler);
  app.setSerializerCompiler(serializerCompiler);
  await app.register(errors);
  await app.register(database, { db: options.db });
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
  await app.register(signIn, { secret: options.secret });
  app.get('/api/health', { config: { open: true } }, async () => {
    await app.db.raw('select 1');
    return { ok: true };
  });
  const keeper = new TodayKeeper(app.db);
  await app.register(todayRoutes, { keeper });
  for (const routes of [engineRoutes, sheetRoutes, buildRoutes, recheckRoutes]) await app.register(routes);
  await app.register(instrumentRoutes);
  await app.register(peopleRoutes);
  const bus = new LiveBus(app.db);
  const listener = new GaugeListener(app.db, bus);
  await app.register(liveRoutes, { bus });
  await app.register(gaugeRoutes, { listener });
  app.addHook('onReady', () => listener.start());
  app.addHook('onClose', async () => {
    listener.stop();
    await bus.close();
  });
  if (options.webRoot && existsSync(join(options.webRoot, 'index.html')))
    await serveWeb(app, options.webRoot, keeper);
  return app;
}

const PAGES = [
  '/sign-in',
  '/engines',
  '/engines/*',
  '/builds/*',
  '/sheets',
  '/sheets/*',
  '/instruments',
  '/shop',
];

/** Serves the application; a page's own address answers with the application too, so that it can be reloaded. */
async function serveWeb(app: FastifyInstance, root: string, keeper: TodayKeeper): Promise<void> {
  await app.register(async (web) => {
    await web.register(files, {
      root,
      wildcard: false,
      index: false,
      preCompressed: true,
      setHeaders: (reply, path) => {
        const forever = path.includes('/assets/');
        void reply.header(
          'cache-control',
          forever ? `public, max-age=${YEAR_SECONDS}, immutable` : 'no-cache',
        );
      },
    });
    await web.register(firstPage, { root, keeper });
    for (const path of PAGES)
      web.get(path, { config: { open: true } }, (_request, reply) => reply.sendFile('index.html'));
  });
}
