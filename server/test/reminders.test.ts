import { mkdtemp, readdir, readFile } from 'node:fs/promises';
import { createServer, type Server } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { CalendarFeed, NewCalendarFeed } from '@zero-lash/contract/calendar';
import type { Morning } from '@zero-lash/contract/morning';
import type { Mailbox } from '@zero-lash/contract/reminders';
import { recheckDay } from '@zero-lash/core/rechecks';
import ICAL from 'ical.js';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { shopDay } from '../clock.ts';
import { startJobs } from '../jobs.ts';
import { makeReminders } from '../reminders/make.ts';
import { mailboxIn, MailServerAway, smtpAt, type Letter, type Mailer } from '../reminders/mailer.ts';
import { sendReminders } from '../reminders/send.ts';
import { BENCH, LEAD, TestShop, VIEWER } from './shop.ts';

let shop: TestShop;
let folder: string;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());
beforeEach(async () => {
  folder = await mkdtemp(join(tmpdir(), 'zero-lash-mail-'));
  await shop.db('reminders').delete();
});

/** Noon of a day on which nobody is asleep. */
const NOON = new Date(
  Date.UTC(new Date().getUTCFullYear(), new Date().getUTCMonth(), new Date().getUTCDate(), 11),
);
const NIGHT = new Date(NOON.getTime() + 10 * 3_600_000);
const letters = async () => (await readdir(folder)).filter((name) => name.endsWith('.eml'));
const waiting = async () => (await shop.db('reminders').whereNull('sent_at')).length;

/** One that is of a recheck to come: a letter of one that did not hold is of one that is done. */
const planned = () => shop.db('reminders').whereNot({ stage: 'not-held' }).first('recheck_id');

/** Carries nothing, and counts how often each letter was handed to it. */
function counting(fails: (letter: Letter) => boolean = () => false) {
  const handed = new Map<string, number>();
  const mailer: Mailer = {
    through: 'mailbox',
    send: (letter) => {
      handed.set(letter.id, (handed.get(letter.id) ?? 0) + 1);
      return fails(letter) ? Promise.reject(new Error('the line is busy')) : Promise.resolve();
    },
  };
  return { handed, mailer };
}

describe('reminders', () => {
  it('tell owners who have an address and wish it, and leads, once of each due day', async () => {
    const made = await makeReminders(shop.db, NOON);
    expect(made).toBeGreaterThan(3);
    expect(await makeReminders(shop.db, NOON)).toBe(0);
    const rows = (await shop.db('reminders')) as {
      address: string;
      recipient: string;
      body: string;
      stage: string;
    }[];
    const addresses = new Set(rows.map(({ address }) => address));
    expect(addresses).toContain('yard@sellend.example');
    expect(addresses).toContain('ilse@overmereworks.example');
    // one wants none, one has no address
    expect([...addresses].filter((each) => each.includes('infirmary'))).toEqual([]);
    for (const { body, stage } of rows) {
      expect(body).toMatch(
        stage === 'not-held'
          ? /its recheck found .* (tight|loose)/
          : /clearances are to be measured again (by|at) /,
      );
      expect(body.includes('That is past.')).toBe(stage === 'overdue');
    }
    // moved to another day it is told of again
    const { recheck_id: id } = (await planned())!;
    await shop.db('rechecks').where({ id }).update({ due_date: '2020-01-01' });
    expect(await makeReminders(shop.db, NOON)).toBeGreaterThan(0);
  });

  it('wait for the morning', async () => {
    await makeReminders(shop.db, NIGHT);
    const { mailer, handed } = counting();
    expect(await sendReminders(shop.db, mailer, NIGHT)).toBe(0);
    expect(handed.size).toBe(0);
    const morning = new Date(NIGHT.getTime() + 10 * 3_600_000);
    expect(await sendReminders(shop.db, mailer, morning)).toBe(handed.size);
    expect(handed.size).toBeGreaterThan(3);
  });

  it('go out as mail that another program reads, into a mailbox that has each once', async () => {
    await makeReminders(shop.db, NOON);
    const sent = await sendReminders(shop.db, mailboxIn(folder), NOON);
    expect((await letters()).length).toBe(sent);
    // each of them, whichever comes first by name
    for (const letter of await letters()) {
      const text = await readFile(join(folder, letter), 'utf8');
      expect(text).toMatch(/^From: /m);
      expect(text).toMatch(/^Subject: (Clearances |Tight clearances: )/m);
      expect(text).toContain(`Message-ID: <${letter.replace('.eml', '')}@zero-lash.invalid>`);
    }
    expect(await waiting()).toBe(0);
  });

  it('are each sent once by two servers at once', async () => {
    await makeReminders(shop.db, NOON);
    const { mailer, handed } = counting();
    const sent = await Promise.all([
      sendReminders(shop.db, mailer, NOON),
      sendReminders(shop.db, mailer, NOON),
      makeReminders(shop.db, NOON),
    ]);
    expect(sent[0] + sent[1]).toBe(handed.size);
    expect([...handed.values()].every((times) => times === 1)).toBe(true);
    expect(sent[2]).toBe(0);
  });

  it('are there once when a server ends between sending and writing it down', async () => {
    await makeReminders(shop.db, NOON);
    const mailbox = mailboxIn(folder);
    let ended = '';
    // it delivers, and is never heard of again
    const dying: Mailer = {
      through: 'mailbox',
      send: async (letter) => {
        await mailbox.send(letter);
        ended = letter.id;
        return new Promise(() => undefined);
      },
    };
    void sendReminders(shop.db, dying, NOON);
    await expect.poll(() => ended).not.toBe('');
    expect(await letters()).toEqual([`${ended}.eml`]);
    // for a while it is that server's, and nobody else's; every other goes
    const others = await sendReminders(shop.db, mailbox, NOON);
    expect([await waiting(), (await letters()).length]).toEqual([1, others + 1]);
    const later = new Date(NOON.getTime() + 180_000);
    // then the same letter goes under the same name: it is there once
    expect(await sendReminders(shop.db, mailbox, later)).toBe(1);
    expect([await waiting(), (await letters()).length]).toEqual([0, others + 1]);
  });

  it('hold no transaction while the mail server is waited for', async () => {
    await makeReminders(shop.db, NOON);
    let open = -1;
    const slow: Mailer = {
      through: 'smtp',
      send: async () => {
        const { rows } = await shop.db.raw(
          `select count(*)::int as open from pg_stat_activity
            where datname = current_database() and xact_start is not null and pid <> pg_backend_pid()
              and application_name not like '%jobs%' and backend_type = 'client backend'`,
        );
        open = Math.max(open, rows[0].open as number);
      },
    };
    expect(await sendReminders(shop.db, slow, NOON)).toBeGreaterThan(3);
    expect(open).toBe(0);
  });

  it('wait all together where the mail server is away: one is tried, and Today says so', async () => {
    await makeReminders(shop.db, NOON);
    const all = await waiting();
    let tries = 0;
    const away: Mailer = {
      through: 'smtp',
      send: () => {
        tries += 1;
        return Promise.reject(new MailServerAway('connect ECONNREFUSED'));
      },
    };
    expect(await sendReminders(shop.db, away, NOON)).toBe(0);
    expect([tries, await waiting()]).toEqual([1, all]);
    const unsent = async () => (await shop.call<Morning>(VIEWER, 'GET', 'morning')).body.unsent;
    expect(await unsent()).toBe(1);
    expect(await sendReminders(shop.db, counting().mailer, new Date(NOON.getTime() + 600_000))).toBe(all);
    expect(await unsent()).toBe(0);
  });

  it('that cannot be sent are tried later, say why, and keep no other back', async () => {
    await makeReminders(shop.db, NOON);
    const bad = (await shop.db('reminders').orderBy('not_before').first('id'))!.id;
    const { mailer, handed } = counting(({ id }) => id === bad);
    const sent = await sendReminders(shop.db, mailer, NOON);
    expect([handed.size, await waiting()]).toEqual([sent + 1, 1]);
    const row = (await shop.db('reminders').where({ id: bad }).first())!;
    expect([row.tries, row.complaint]).toEqual([1, 'the line is busy']);
    expect(row.not_before.getTime()).toBe(NOON.getTime() + 5 * 60_000);
    await sendReminders(shop.db, mailer, new Date(NOON.getTime() + 6 * 60_000));
    const later = (await shop.db('reminders').where({ id: bad }).first())!;
    expect(later.not_before.getTime()).toBe(NOON.getTime() + 16 * 60_000);
    expect(await sendReminders(shop.db, counting().mailer, new Date(NOON.getTime() + 3_600_000))).toBe(1);
  });

  it('are not sent once nobody wants them: moved, on hold, or of no use to their owner', async () => {
    await makeReminders(shop.db, NOON);
    await shop.db('owners').where({ name: 'Sellend Orchards' }).update({ tells: 'peace' });
    const { mailer } = counting();
    await sendReminders(shop.db, mailer, NOON);
    const left = await shop.db('reminders').where({ address: 'yard@sellend.example' });
    expect(left.length).toBeGreaterThan(0);
    expect(left.every((row) => row.sent_at === null && row.complaint === 'not wanted any more')).toBe(true);
    await shop.db('owners').where({ name: 'Sellend Orchards' }).update({ tells: 'mail' });
  });

  it('are taken one at a time, also where the database believes that there are none', async () => {
    // so it is planned after the table was looked at while it was empty
    await shop.db.raw('vacuum analyze reminders');
    await makeReminders(shop.db, NOON);
    const all = await waiting();
    expect(all).toBeGreaterThan(3);
    await shop.db.transaction(async (transaction) => {
      // and may go row by row
      for (const way of ['hashjoin', 'mergejoin', 'hashagg', 'sort', 'material'])
        await transaction.raw(`set local enable_${way} = off`);
      const held: number[] = [];
      const mailer: Mailer = {
        through: 'mailbox',
        send: async () => {
          const taken = await transaction('reminders').whereNull('sent_at').whereNotNull('sending_until');
          held.push(taken.length);
        },
      };
      expect(await sendReminders(transaction, mailer, NOON)).toBe(all);
      expect(new Set(held)).toEqual(new Set([1]));
    });
    expect(await waiting()).toBe(0);
  });

  it('of a recheck that is held back wait, and go out once it is let go', async () => {
    await makeReminders(shop.db, NOON);
    const { recheck_id: id } = (await planned())!;
    const left = async () =>
      (await shop.db('reminders').where({ recheck_id: id }).whereNull('sent_at')).length;
    const all = await left();
    await shop.db('rechecks').where({ id }).update({ held: true });
    await sendReminders(shop.db, counting().mailer, NOON);
    expect([await waiting(), await left()]).toEqual([all, all]);
    await shop.db('rechecks').where({ id }).update({ held: false });
    expect(await sendReminders(shop.db, counting().mailer, NOON)).toBe(all);
  });

  it('are read on their page, with the owners that nobody can tell', async () => {
    const { body, status } = await shop.call<Mailbox>(LEAD, 'POST', 'reminders/now');
    expect(status).toBe(200);
    expect(body.reminders.length).toBeGreaterThan(3);
    expect(body.through).toBe('mailbox');
    expect((await shop.call(BENCH, 'POST', 'reminders/now')).status).toBe(403);
    await shop.db('owners').where({ name: 'Orrel and Daughters' }).update({ email: '' });
    const again = await shop.call<Mailbox>(VIEWER, 'GET', 'reminders');
    expect(again.body.unreached.map(({ owner }) => owner)).toContain('Orrel and Daughters');
  });
});

describe('a mail server', () => {
  const at = async (talk: (server: Server) => void, work: (port: number) => Promise<void>) => {
    const server = createServer();
    talk(server);
    await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
    const address = server.address();
    await work(typeof address === 'object' && address ? address.port : 0);
    server.close();
  };
  const letter = { id: 'a', to: 'yard@sellend.example', subject: 'x', body: 'y', at: new Date() };

  it('that refuses is said with its own words', () =>
    at(
      (server) => server.on('connection', (socket) => socket.end('554 no service here\r\n')),
      (port) => expect(smtpAt(`smtp://127.0.0.1:${port}`).send(letter)).rejects.toThrow(/554|no service/),
    ));

  it('that says nothing is given up', () =>
    at(
      // it takes the call, and keeps silent
      (server) => server.on('connection', (socket) => socket.on('error', () => undefined)),
      (port) =>
        expect(smtpAt(`smtp://127.0.0.1:${port}`, undefined, 300).send(letter)).rejects.toThrow(
          /timeout|never/i,
        ),
    ));

  it('that says a word at a time is given up as well: it is never silent, and holds nobody up', () =>
    at(
      (server) =>
        server.on('connection', (socket) => {
          const drip = setInterval(() => socket.write('2'), 50);
          socket.on('error', () => undefined).on('close', () => clearInterval(drip));
        }),
      (port) =>
        expect(smtpAt(`smtp://127.0.0.1:${port}`, undefined, 200).send(letter)).rejects.toThrow(
          MailServerAway,
        ),
    ));

  it('that refuses one letter is not away', () =>
    at(
      (server) =>
        server.on('connection', (socket) => {
          socket.write('220 here\r\n');
          socket.on('error', () => undefined);
          socket.on('data', (chunk) => {
            socket.write(chunk.toString().startsWith('RCPT') ? '550 nobody of that name\r\n' : '250 ok\r\n');
          });
        }),
      async (port) => {
        const refused = smtpAt(`smtp://127.0.0.1:${port}?ignoreTLS=true`).send(letter);
        await expect(refused).rejects.toThrow(/550/);
        await expect(refused).rejects.not.toBeInstanceOf(MailServerAway);
      },
    ));

  it('that takes a letter has it as it was written', async () => {
    const said: string[] = [];
    await at(
      (server) =>
        server.on('connection', (socket) => {
          let data = false;
          socket.write('220 here\r\n');
          socket.on('data', (chunk) => {
            for (const line of chunk.toString().split('\r\n').filter(Boolean)) {
              said.push(line);
              if (data && line === '.') data = false;
              else if (data) continue;
              else if (line === 'DATA') data = true;
              socket.write(line === 'DATA' ? '354 go\r\n' : line === 'QUIT' ? '221 bye\r\n' : '250 ok\r\n');
              if (line === 'QUIT') socket.end();
            }
          });
        }),
      (port) => smtpAt(`smtp://127.0.0.1:${port}?ignoreTLS=true`, 'works@overmere.example').send(letter),
    );
    expect(said).toContain('RCPT TO:<yard@sellend.example>');
    expect(said).toContain('MAIL FROM:<works@overmere.example>');
    expect(said).toContain('Message-ID: <a@zero-lash.invalid>');
  });
});

describe('the jobs', () => {
  it('of two servers send each reminder once', async () => {
    const { mailer, handed } = counting();
    await shop.db('shop').update({ quiet_from: '00:00', quiet_to: '00:00' });
    const url = shop.url;
    const log = shop.app.log;
    const [one, two] = await Promise.all([
      startJobs(url, { db: shop.db, mailer, log }),
      startJobs(url, { db: shop.db, mailer, log }),
    ]);
    await one.remindNow();
    await two.remindNow();
    await expect.poll(async () => (handed.size > 0 ? await waiting() : 1), { timeout: 20_000 }).toBe(0);
    await Promise.all([one.stop(), two.stop()]);
    expect([...handed.values()].every((times) => times === 1)).toBe(true);
  });
});

describe('a calendar', () => {
  const events = (text: string) =>
    new ICAL.Component(ICAL.parse(text)).getAllSubcomponents('vevent').map((event) => new ICAL.Event(event));

  it('of one recheck is read by another program, a whole day of its own', async () => {
    const { id, ...recheck } = await shop
      .db('rechecks as r')
      .join('engines as e', 'e.id', 'r.engine_id')
      .where({ 'r.status': 'planned', 'e.name': 'Frost fan 12, Quarry Rows' })
      .first({
        ...{ id: 'r.id', benchDay: 'r.bench_day', expectedDay: 'r.expected_day', dueDate: 'r.due_date' },
        ...{ dueUsage: 'r.due_usage', dueCycles: 'r.due_cycles' },
        ...{ running: 'e.running', heatCycles: 'e.heat_cycles' },
      });
    // the day that stands for it everywhere; one that is past stands on today
    const today = await shopDay(shop.db);
    const stands = recheckDay(recheck, today)!.day;
    const day = stands < today ? today : stands;
    const file = await shop.raw(VIEWER, `/api/rechecks/${id}/calendar`);
    expect(file.headers['content-type']).toContain('text/calendar');
    const [event] = events(file.body);
    expect(event!.uid).toBe(`${id}@zero-lash`);
    expect(event!.startDate.isDate).toBe(true);
    expect(event!.startDate.toString()).toBe(day);
    expect(event!.duration.toSeconds()).toBe(86_400);
    expect(event!.summary).toBe('Recheck: Frost fan 12, Quarry Rows');
    expect((await shop.raw(VIEWER, `/api/rechecks/${crypto.randomUUID()}/calendar`)).statusCode).toBe(404);
  });

  it('of a person is read at an address that nobody can guess, until it is withdrawn', async () => {
    const key = crypto.randomUUID();
    const make = () => shop.call<NewCalendarFeed>(VIEWER, 'POST', 'calendar-feeds', undefined, key);
    const { body: made } = await make();
    // a retry gets the same address, which is kept in clear nowhere
    expect((await make()).body).toEqual(made);
    const kept = (await shop.db('writes').where({ key }).first('answer'))!.answer as object;
    expect(Object.keys(kept)).not.toContain('path');
    const read = (path: string) => shop.app.inject({ method: 'GET', url: path });
    const feed = await read(made.path);
    expect(feed.statusCode).toBe(200);
    const planned = await shop
      .db('rechecks')
      .where({ status: 'planned', held: false })
      .whereNotNull('expected_day');
    expect(events(feed.body).length).toBeGreaterThan(5);
    expect(events(feed.body).length).toBeLessThanOrEqual(planned.length);
    expect(feed.body).not.toMatch(/\.example|passphrase/);
    for (const guess of [
      made.path.slice(0, -6) + 'AA.ics',
      '/api/calendar/x.ics',
      `/api/calendar/${made.id}.ics`,
    ])
      expect((await read(guess)).statusCode, guess).toBe(404);
    // of the address only a hash is kept
    const { token_hash: hash } = (await shop.db('calendar_feeds').where({ id: made.id }).first())!;
    expect(made.path).not.toContain(hash.toString('base64url'));
    expect((await shop.call(LEAD, 'DELETE', `calendar-feeds/${made.id}`)).status).toBe(404);
    const { body: left } = await shop.call<CalendarFeed[]>(VIEWER, 'DELETE', `calendar-feeds/${made.id}`);
    expect(left.find(({ id }) => id === made.id)!.withdrawnAt).not.toBeNull();
    expect((await read(made.path)).statusCode).toBe(404);
  });
});
