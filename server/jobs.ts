import type { FastifyBaseLogger } from 'fastify';
import type { Knex } from 'knex';
import PgBoss from 'pg-boss';
import { announceChange } from './plugins/bus.ts';
import { oneServerAtATime } from './database.ts';
import { makeReminders } from './reminders/make.ts';
import type { Mailer } from './reminders/mailer.ts';
import { keepForecastsUp } from './rechecks/keepUp.ts';
import { sendReminders } from './reminders/send.ts';

const REMIND = 'remind';
const FORECAST = 'forecast';
/** Every quarter of an hour: one job for all servers of a shop, however many there are. */
const EVERY = '*/15 * * * *';

/** The jobs of a running server. */
export interface Jobs {
  /** does the work of a quarter of an hour now */
  readonly remindNow: () => Promise<void>;
  readonly stop: () => Promise<void>;
}

/**
 * Starts the shop's jobs on its own database: reminders are made and sent, and forecasts kept up, by whichever server takes
 * the job.
 */
export async function startJobs(
  url: string,
  { db, mailer, log }: { readonly db: Knex; readonly mailer: Mailer; readonly log: FastifyBaseLogger },
): Promise<Jobs> {
  const boss = new PgBoss({ connectionString: url, max: 2, application_name: 'zero-lash-jobs' });
  boss.on('error', (err) => log.warn({ err }, 'the jobs'));
  // servers that start together make the same tables and the same queue: one after another
  await oneServerAtATime(db, async () => {
    await boss.start();
    for (const name of [REMIND, FORECAST]) {
      await boss.createQueue(name, { name, policy: 'short', retryLimit: 3 });
      await boss.schedule(name, EVERY);
    }
  });
  await boss.work(REMIND, async () => {
    const made = await makeReminders(db);
    const sent = await sendReminders(db, mailer);
    if (made + sent > 0) await announceChange(db, ['letters']);
  });
  await boss.work(FORECAST, async () => {
    await keepForecastsUp(db);
  });
  return {
    remindNow: async () => {
      await boss.send(REMIND, {});
    },
    stop: () => boss.stop({ graceful: true, timeout: 5000 }),
  };
}
