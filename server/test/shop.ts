import { randomUUID } from 'node:crypto';
import type { BuildView } from '@zero-lash/contract/builds';
import type { FastifyInstance, InjectOptions } from 'fastify';
import type { Knex } from 'knex';
import { inject } from 'vitest';
import { buildApp, type AppOptions } from '../app.ts';
import { connect, migrate } from '../database.ts';
import { loadDemo } from '../demo/load.ts';
import { DEMO_PEOPLE } from '../demo/world.ts';

/** An answer, as far as tests look. */
export interface Answer<Body = unknown> {
  readonly status: number;
  readonly body: Body & Record<string, never>;
  readonly headers: Record<string, unknown>;
}

/** A server on a database of its own, with the demo world in it, called over HTTP. */
export class TestShop {
  readonly db: Knex;
  readonly app: FastifyInstance;
  /** where its database is */
  readonly url: string;
  readonly #cookies = new Map<string, string>();

  private constructor(db: Knex, app: FastifyInstance, url: string) {
    this.db = db;
    this.app = app;
    this.url = url;
  }

  static async open(): Promise<TestShop> {
    const url = await emptyDatabase();
    const db = connect(url);
    await migrate(db);
    await loadDemo(db);
    return new TestShop(db, await TestShop.server(db), url);
  }

  /** A server on a database that is there already. */
  static async on(url: string): Promise<TestShop> {
    const db = connect(url);
    return new TestShop(db, await TestShop.server(db), url);
  }

  /** Another server on a database, as a second process of the shop would be. */
  static async server(db: Knex, options: Partial<AppOptions> = {}): Promise<FastifyInstance> {
    const app = await buildApp({ db, secret: TEST_SECRET, logLevel: 'silent', ...options });
    await app.ready();
    return app;
  }

  async close(): Promise<void> {
    await this.app.close();
    await this.db.destroy();
  }

  /** The session of somebody of the demo shop, as a header. */
  async cookieOf(name: string): Promise<string> {
    const known = this.#cookies.get(name);
    if (known) return known;
    const { passphrase } = DEMO_PEOPLE.find((person) => person.name === name)!;
    const reply = await this.app.inject({
      method: 'POST',
      url: '/api/session',
      payload: { name, passphrase },
    });
    const cookie = cookiesOf(reply.headers['set-cookie']);
    this.#cookies.set(name, cookie);
    return cookie;
  }

  /** Everybody signs in anew at their next call: somebody ended their sessions. */
  forgetCookies(): void {
    this.#cookies.clear();
  }

  /** Calls a route as somebody; a write gets a key of its own unless one is given. */
  async call<Body = Record<string, never>>(
    who: string | null,
    method: 'GET' | 'POST' | 'PATCH' | 'PUT' | 'DELETE',
    path: string,
    payload?: unknown,
    key: string = randomUUID(),
  ): Promise<Answer<Body>> {
    const request: InjectOptions = {
      method,
      url: `/api/${path}`,
      headers: {
        ...(who ? { cookie: await this.cookieOf(who) } : {}),
        ...(method === 'GET' ? {} : { 'idempotency-key': key }),
        ...(payload === undefined ? {} : { 'content-type': 'application/json' }),
      },
      ...(payload === undefined
        ? {}
        : { payload: typeof payload === 'string' ? payload : JSON.stringify(payload) }),
    };
    const reply = await this.app.inject(request);
    return {
      status: reply.statusCode,
      body: reply.body === '' ? null : JSON.parse(reply.body),
      headers: reply.headers,
    };
  }

  /** Fetches whatever a path answers with, as it is. */
  async raw(who: string, url: string) {
    return this.app.inject({ method: 'GET', url, headers: { cookie: await this.cookieOf(who) } });
  }

  /** The open build of a demo engine. */
  async buildOf(engine: string): Promise<BuildView> {
    const row = await this.db('builds as b')
      .join('engines as e', 'e.id', 'b.engine_id')
      .where('e.name', engine)
      .whereNull('b.closed_at')
      .first('b.id');
    return (await this.call<BuildView>('Ilse Marrand', 'GET', `builds/${row.id}`)).body;
  }
}

/** Makes an empty database in the tests' cluster; gives its address. */
export async function emptyDatabase(): Promise<string> {
  const url = new URL(inject('clusterUrl'));
  const admin = connect(url.href);
  const name = `test_${randomUUID().replaceAll('-', '')}`;
  await admin.raw(`create database ${name}`);
  await admin.destroy();
  url.pathname = `/${name}`;
  return url.href;
}

/** The cookies an answer sets, as the next request sends them. */
export function cookiesOf(set: string | string[] | undefined): string {
  return [set ?? []]
    .flat()
    .map((each) => each.split(';')[0])
    .join('; ');
}

export const TEST_SECRET = 'only-the-tests-know-this-secret-of-theirs';
export const LEAD = 'Ilse Marrand';
export const BENCH = 'Tobin Hask';
export const VIEWER = 'Petra Quell';
