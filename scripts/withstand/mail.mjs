import { createServer } from 'node:net';
import { setTimeout as pause } from 'node:timers/promises';
import { ask } from '../database.mjs';
import { addressOf, startServer, stopped } from '../server.mjs';
import { LEAD, signIn } from './shop.mjs';

const LOOK_MS = 100;

/**
 * Letters are sent while the mail server takes the call and says nothing, and again once it works. Meanwhile no transaction stands
 * open, and whoever asked is answered.
 */
export async function hangingMail({ url }) {
  const mail = await mailServer();
  const server = startServer(
    {
      DATABASE_URL: url,
      LOG_LEVEL: 'silent',
      PORT: '0',
      SMTP_URL: `smtp://127.0.0.1:${mail.port}?ignoreTLS=true`,
    },
    'pipe',
  );
  try {
    const lead = await signIn(await addressOf(server), LEAD);
    // whatever the hour is, nobody is asleep; what was sent before is sent again
    await ask(url, `update shop set quiet_from = '00:00', quiet_to = '00:00'`);
    await ask(url, `update reminders set sent_at = null, not_before = now(), tries = 0, complaint = ''`);
    const send = async () => {
      const began = performance.now();
      const { status } = await lead('POST', 'reminders/now');
      return { status, seconds: (performance.now() - began) / 1000 };
    };
    let done = false;
    const watching = watchOpen(url, () => done);
    const hung = await send();
    done = true;
    const open = await watching;
    const [{ waiting }] = await ask(
      url,
      'select count(*)::int as waiting from reminders where sent_at is null',
    );
    mail.works();
    await ask(url, `update reminders set not_before = now() where sent_at is null`);
    const worked = await send();
    const [{ left }] = await ask(
      url,
      `select count(*)::int as left from reminders where sent_at is null and complaint <> 'not wanted any more'`,
    );
    return { hung, worked, open, waiting, left, taken: mail.taken(), ids: new Set(mail.taken()).size };
  } finally {
    await stopped(server);
    mail.stop();
  }
}

/** The longest that a transaction of a server stood open, in seconds. */
async function watchOpen(url, isOver) {
  let longest = 0;
  while (!isOver()) {
    const [{ open }] = await ask(
      url,
      `select coalesce(max(extract(epoch from clock_timestamp() - xact_start)), 0)::float as open from pg_stat_activity
         where datname = current_database() and backend_type = 'client backend' and pid <> pg_backend_pid()`,
    );
    longest = Math.max(longest, open);
    await pause(LOOK_MS);
  }
  return longest;
}

/** A mail server that hangs until it is told to work; it remembers the id of each letter that it took. */
async function mailServer() {
  let working = false;
  const taken = [];
  const sockets = new Set();
  const server = createServer((socket) => {
    sockets.add(socket);
    socket.on('error', () => undefined).on('close', () => sockets.delete(socket));
    if (!working) return;
    let data = false;
    socket.write('220 here\r\n');
    socket.on('data', (chunk) => {
      for (const line of chunk.toString().split('\r\n')) {
        const id = /^Message-ID: <(.*)>$/i.exec(line);
        if (id) taken.push(id[1]);
        if (data) {
          if (line === '.') {
            data = false;
            socket.write('250 taken\r\n');
          }
        } else if (line === 'DATA') {
          data = true;
          socket.write('354 go on\r\n');
        } else if (line === 'QUIT') socket.end('221 good bye\r\n');
        else if (line !== '') socket.write('250 ok\r\n');
      }
    });
  });
  await new Promise((resolve) => server.listen(0, '127.0.0.1', resolve));
  return {
    port: server.address().port,
    works: () => void (working = true),
    taken: () => taken,
    stop: () => {
      for (const socket of sockets) socket.destroy();
      server.close();
    },
  };
}
