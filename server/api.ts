import compress from '@fastify/compress';
import type { FastifyInstance } from 'fastify';
import './buildRooms.ts';
import { stageRoutes } from './stages/routes.ts';
import { calendarRoutes } from './calendar/routes.ts';
import { engineRoutes } from './engines/routes.ts';
import type { GaugeListener } from './gauges/listener.ts';
import { fleetRoutes } from './fleet/routes.ts';
import { gaugeRoutes } from './gauges/routes.ts';
import type { Startup } from './health/startup.ts';
import { drawerRoutes } from './pieces/routes.ts';
import { instrumentRoutes } from './instruments/routes.ts';
import { questionRoutes } from './questions/routes.ts';
import { headWorkRoutes } from './headwork/routes.ts';
import { knowHowRoutes } from './knowHow/routes.ts';
import { describe } from './openapi.ts';
import { Papers } from './paperPool.ts';
import { RecordReader } from './records/reader.ts';
import { partsRoutes } from './parts/routes.ts';
import { photographRoutes } from './photographs/routes.ts';
import { wearRoutes } from './wear/routes.ts';
import type { LiveBus } from './plugins/bus.ts';
import { liveRoutes } from './live/routes.ts';
import { measuringRoutes } from './measuring/routes.ts';
import { peopleRoutes } from './people/routes.ts';
import { Refusal } from './plugins/errors.ts';
import { guard } from './plugins/signIn.ts';
import { needsKey } from './plugins/writes.ts';
import { ownerRoutes } from './owners/routes.ts';
import { recheckRoutes } from './rechecks/routes.ts';
import { reminderRoutes } from './reminders/routes.ts';
import type { Mailer } from './reminders/mailer.ts';
import { settingRoutes } from './setting/routes.ts';
import { sheetRoutes } from './sheets/routes.ts';
import { recordRoutes } from './records/routes.ts';
import { ranRoutes } from './ran/routes.ts';
import { paperRoutes } from './signoff/papers.ts';
import { signoffRoutes } from './signoff/routes.ts';
import { turningRoutes } from './turning/routes.ts';
import { todayRoutes } from './today/routes.ts';
import { usageRoutes } from './usage/routes.ts';

/** Answers smaller than this go as they are. */
const WORTH_COMPRESSING_BYTES = 1024;

/** The rooms that need nothing but the database, in the order of the work. */
const ROOMS = [
  sheetRoutes,
  engineRoutes,
  stageRoutes,
  turningRoutes,
  measuringRoutes,
  wearRoutes,
  headWorkRoutes,
  partsRoutes,
  photographRoutes,
  knowHowRoutes,
  settingRoutes,
  signoffRoutes,
  paperRoutes,
  ranRoutes,
  recordRoutes,
  recheckRoutes,
  ownerRoutes,
  usageRoutes,
  calendarRoutes,
  fleetRoutes,
  instrumentRoutes,
  drawerRoutes,
  questionRoutes,
];

/** What the rooms' routes share in one process. */
export interface ApiOptions {
  readonly startup: Startup;
  readonly bus: LiveBus;
  readonly listener: GaugeListener;
  readonly mailer: Mailer;
}

/**
 * Every room's routes behind one door: who is not signed in is let in only where a route says that it is open, and a
 * write comes with a key of its own.
 */
export async function api(app: FastifyInstance, { startup, bus, listener, mailer }: ApiOptions) {
  app.addHook('onRequest', (_request, _reply, done) => {
    done(startup.awake ? undefined : new Refusal('waking'));
  });
  guard(app);
  // before a body is looked at: whoever forgot the key is told so first
  app.addHook('preValidation', needsKey);
  app.get('/openapi.json', { schema: { hide: true } }, async (_request, reply) =>
    reply.type('application/openapi+json').send(JSON.stringify(describe(app))),
  );
  await app.register(compress, { encodings: ['gzip'], threshold: WORTH_COMPRESSING_BYTES });
  app.decorate('papers', new Papers());
  app.decorate('records', new RecordReader());
  app.addHook('onClose', async () => {
    await app.papers.close();
    await app.records.close();
  });
  await app.register(todayRoutes);
  for (const routes of ROOMS) await app.register(routes);
  await app.register(peopleRoutes);
  await app.register(liveRoutes, { bus });
  await app.register(gaugeRoutes, { listener });
  await app.register(reminderRoutes, { mailer });
}
