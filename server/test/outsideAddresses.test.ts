import { createServer as createHttp, type RequestListener } from 'node:http';
import { createServer, type AddressInfo, type Socket } from 'node:net';
import { ownPlace } from '@zero-lash/contract/places';
import type { MeterQuestion } from '@zero-lash/contract/usage';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { GaugeLine, type Said } from '../gauges/line.ts';
import { takeFeed } from '../usage/feed.ts';
import { LEAD, TestShop, VIEWER } from './shop.ts';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

describe('what is reached', () => {
  it.each([
    ['127.0.0.1:4519', true],
    ['localhost:4519', true],
    ['192.168.4.20:80', false],
    ['10.1.2.3:65535', false],
  ])('may be of this machine or the shop: %s', (address, here) => {
    expect(ownPlace(address)?.here).toBe(here);
  });

  it.each([
    '93.184.216.34:80',
    'meters.overmere.example:80',
    '169.254.169.254:80',
    '127.1:80',
    '0.0.0.0:80',
    '10.1.2.3:0',
    '10.1.2.3:65536',
    '10.1.2.3',
    '10.1.2.3:80/x',
    'user@10.1.2.3:80',
  ])('is nobody else’s: %s', (address) => {
    expect(ownPlace(address)).toBeNull();
  });
});

/** A meter feed that behaves as it is told, while something looks at it. */
async function withFeed<T>(behave: RequestListener, look: () => Promise<T>): Promise<T> {
  const server = createHttp(behave);
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  await shop.db('shop').update({ meter_feed: `127.0.0.1:${(server.address() as AddressInfo).port}` });
  try {
    return await look();
  } finally {
    server.closeAllConnections();
    server.close();
  }
}
const lookAt = (behave: RequestListener) =>
  withFeed(behave, () => shop.call<{ detail: string; code: string }>(LEAD, 'POST', 'usage/feed'));

describe('a meter feed', () => {
  it('is not followed to where it points', async () => {
    let reached = false;
    const other = createHttp((_request, response) => {
      reached = true;
      response.end();
    });
    await new Promise<void>((ready) => other.listen(0, '127.0.0.1', ready));
    const { port } = other.address() as AddressInfo;
    const { body } = await lookAt((_request, response) =>
      response.writeHead(302, { location: `http://127.0.0.1:${port}/readings` }).end(),
    );
    other.close();
    expect([body.code, reached]).toEqual(['feed_away', false]);
  });

  it('that never ends is cut off as it comes', async () => {
    let sent = 0;
    const { body } = await lookAt((_request, response) => {
      const more = () => {
        while (!response.destroyed && response.write('x'.repeat(65_536))) sent += 65_536;
      };
      response.on('drain', more);
      more();
    });
    expect(body.detail).toContain('more than 8 MB');
    // what the lines between them hold comes on top: it was not read to any end
    expect(sent).toBeLessThan(40_000_000);
  });

  it('that says a word at a time is given up in time', async () => {
    const words: RequestListener = (_request, response) => {
      const drip = setInterval(() => response.write('{'), 20);
      response.on('close', () => clearInterval(drip));
    };
    await withFeed(words, () =>
      expect(takeFeed(shop.db, 200)).rejects.toThrow(/cannot be read.*(timeout|abort)/),
    );
  });

  it('with a line that the database takes nowhere is taken for the rest', async () => {
    const { serial, usage } = (await shop
      .db('engines')
      .where('name', 'like', 'Frost fan 16%')
      .first('serial', 'usage'))!;
    const line = (figure: number, at: string) => JSON.stringify({ serial, at, usage: figure });
    const minute = (back: number) => new Date(Date.now() - back * 60_000).toISOString();
    await shop.db.raw(`create function no_such_figure() returns trigger language plpgsql as
      $$ begin if new.usage = ${Number(usage) + 1} then raise exception 'a bad column'; end if; return new; end $$`);
    await shop.db.raw(
      'create trigger no_such_figure before insert on usages for each row execute function no_such_figure()',
    );
    const { body } = await lookAt((_request, response) =>
      response.end([line(usage + 1, minute(3)), line(usage + 2, minute(2))].join('\n')),
    );
    await shop.db.raw('drop trigger no_such_figure on usages');
    expect(body).toMatchObject({ taken: 1, asked: 1, seen: 2 });
    const { questions } = (await shop.call<{ questions: MeterQuestion[] }>(VIEWER, 'GET', 'usage/questions'))
      .body;
    expect(questions.find((each) => each.usage === usage + 1)!.why).toContain('cannot be written down');
  });

  it('elsewhere is not read, and cannot be named', async () => {
    await shop.db('shop').update({ meter_feed: 'meters.overmere.example:80' });
    expect((await shop.call<{ detail: string }>(LEAD, 'POST', 'usage/feed')).body.detail).toContain(
      'see Shop',
    );
  });
});

describe('what a gauge’s line leads to', () => {
  const talk = async (greet: (socket: Socket) => void, until: (said: Said[], closed: number) => boolean) => {
    let closed = 0;
    const server = createServer((socket) => {
      socket.on('error', () => undefined).on('close', () => (closed += 1));
      greet(socket);
    });
    await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
    const { port } = server.address() as AddressInfo;
    const said: Said[] = [];
    const line = new GaugeLine({ host: '127.0.0.1', port, here: true }, (each) => said.push(each), 300);
    await expect.poll(() => until(said, closed), { timeout: 5000 }).toBe(true);
    line.end();
    server.close();
    return said;
  };

  it('is hung up on where it never says what it is', async () => {
    expect(
      await talk(
        () => undefined,
        (_said, closed) => closed > 0,
      ),
    ).toEqual([]);
  });

  it('is hung up on where a line has no end', async () => {
    const said = await talk(
      (socket) => socket.write(`ZLG 1 Bench gauge\n${'9'.repeat(500)}`),
      (_said, closed) => closed > 0,
    );
    expect(said.map(({ kind }) => kind)).toEqual(['link', 'link']);
  });
});
