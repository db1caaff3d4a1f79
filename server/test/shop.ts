import { randomUUID } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import { problem } from '@zero-lash/contract/problems';
import type { BuildHead, BuildParts, BuildWrite, ChangeKind } from '@zero-lash/contract/builds';
import type { ReadingRow } from '@zero-lash/contract/measuring';
import type { SheetRevision } from '@zero-lash/contract/sheets';
import type { FastifyInstance, FastifyReply, FastifyRequest, InjectOptions } from 'fastify';
import type { Knex } from 'knex';
import { afterEach, expect, inject } from 'vitest';
import type { z } from 'zod';
import type { AnswerWatch } from '../answers.ts';
import { buildApp, type AppOptions } from '../app.ts';
import { connect } from '../database.ts';
import { publishedAnswers } from '../../scripts/published.mjs';
import { buildRooms } from '../builds/registry.ts';
import { DEMO_PEOPLE } from '../demo/world.ts';

/** An answer, as far as tests look. */
export interface Answer<Body = unknown> {
  readonly status: number;
  readonly body: Body & Record<string, never>;
  readonly headers: Record<string, unknown>;
}

/** A build as a browser puts it together from its rooms. */
export interface BuildView extends BuildHead, BuildParts {
  readonly seq: number;
  readonly sheet: SheetRevision;
}

const BUILD_PARTS = Object.keys(buildRooms()) as (keyof BuildParts)[];

/** Where the rows of each kind of change are read. */
const ROOM_OF = Object.fromEntries(
  Object.entries(buildRooms()).flatMap(([room, { kinds }]) => Object.keys(kinds).map((kind) => [kind, room])),
) as Readonly<Record<Exclude<ChangeKind, 'head'>, keyof BuildParts>>;

/** A server on a database of its own, with the demo world in it, called over HTTP. */
export class TestShop {
  readonly db: Knex;
  readonly app: FastifyInstance;
  /** where its database is */
  readonly url: string;
  readonly #cookies = new Map<string, string>();
  /** builds as they were read last */
  readonly #builds = new Map<string, BuildView>();

  private constructor(db: Knex, app: FastifyInstance, url: string) {
    this.db = db;
    this.app = app;
    this.url = url;
  }

  static async open(options: Partial<AppOptions> = {}): Promise<TestShop> {
    const url = await newDatabase(inject('demoName'));
    const db = connect(url);
    return new TestShop(db, await TestShop.server(db, options), url);
  }

  /** A server on a database that is there already. */
  static async on(url: string): Promise<TestShop> {
    const db = connect(url);
    return new TestShop(db, await TestShop.server(db), url);
  }

  /** Another server on a database, as a second process of the shop would be. */
  static async server(db: Knex, options: Partial<AppOptions> = {}): Promise<FastifyInstance> {
    const app = await buildApp({
      db,
      secret: TEST_SECRET,
      logLevel: 'silent',
      watchAnswers: parseAnswer,
      ...options,
    });
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

  /** Everybody signs in again at their next call: somebody ended their sessions. */
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
    return this.build(row.id);
  }

  /** Everything that is read of a build, room by room. */
  async build(id: string): Promise<BuildView> {
    const { seq, rows: head } = await this.#read<{ seq: number; rows: BuildHead }>(`builds/${id}`);
    const sheet = await this.#read<SheetRevision>(`sheet-revisions/${head.revisionId}`);
    return this.#keep({ ...head, seq, sheet, ...(await this.#rooms(id, BUILD_PARTS)) } as BuildView);
  }

  /** A build after a write in it: the build itself, and the rooms that the write says it changed, are read again. */
  async buildAfter(before: BuildView, { changes = [] }: Partial<BuildWrite>): Promise<BuildView> {
    const { seq, rows: head } = await this.#read<{ seq: number; rows: BuildHead }>(`builds/${before.id}`);
    const rooms = [...new Set(changes.flatMap(({ kind }) => (kind === 'head' ? [] : [ROOM_OF[kind]])))];
    return this.#keep({ ...before, ...head, seq, ...(await this.#rooms(before.id, rooms)) });
  }

  #keep(build: BuildView): BuildView {
    this.#builds.set(build.id, build);
    return build;
  }

  async #rooms(id: string, rooms: readonly (typeof BUILD_PARTS)[number][]): Promise<object> {
    return Object.fromEntries(
      await Promise.all(
        rooms.map(async (room) => [room, (await this.#read<{ rows: unknown }>(`builds/${id}/${room}`)).rows]),
      ),
    );
  }

  async #read<Body>(path: string): Promise<Body> {
    const { status, body } = await this.call<Body>(LEAD, 'GET', path);
    if (status !== 200) throw new Error(`${path}: ${status} ${JSON.stringify(body)}`);
    return body;
  }

  /** Writes in a build, and reads it after; what is refused is answered as it is. */
  async write(
    who: string,
    method: 'POST' | 'PATCH' | 'PUT',
    path: string,
    payload?: unknown,
    key?: string,
  ): Promise<Answer<BuildView>> {
    const answer = await this.call<BuildWrite>(who, method, path, payload, key);
    if (answer.status >= 300) return answer as unknown as Answer<BuildView>;
    const { build, seq } = answer.body;
    const known = this.#builds.get(build);
    // where nobody wrote in between, only the rooms that the write says it changed are other than they were
    const after = known?.seq === seq - 1 ? this.buildAfter(known, answer.body) : this.build(build);
    return { ...answer, body: (await after) as Answer<BuildView>['body'] };
  }

  /** Takes a reading, and gives its row; what is refused is answered as it is. */
  async read(who: string, roundId: string, payload: unknown, key?: string): Promise<Answer<ReadingRow>> {
    const answer = await this.call<BuildWrite>(who, 'POST', `rounds/${roundId}/readings`, payload, key);
    if (answer.status >= 300) return answer as unknown as Answer<ReadingRow>;
    return { ...answer, body: answer.body.changes[0]!.row as Answer<ReadingRow>['body'] };
  }
}

/** Answers that are no JSON of their route: a stream, a file, a page. */
const NOT_PARSED = new Set([
  'text/calendar',
  'text/event-stream',
  'application/pdf',
  'application/openapi+json',
  'application/zip',
  'text/html',
  'image/jpeg',
]);

/** An answer as text, also one that was kept as bytes; null for any other. */
const asText = (payload: unknown): string | null =>
  typeof payload === 'string' ? payload : Buffer.isBuffer(payload) ? payload.toString() : null;

/** Holds an answer to its route's own schema, to the last field of it: what goes out is what is said to go out. */
function parseAnswer(request: FastifyRequest, reply: FastifyReply, payload: unknown): void {
  const type = String(reply.getHeader('content-type') ?? '').split(';')[0]!;
  if (!request.routeOptions.url?.startsWith('/api') || NOT_PARSED.has(type)) return;
  const route = `${request.method} ${request.routeOptions.url}: ${reply.statusCode}`;
  const text = asText(payload);
  const said: unknown = text ? JSON.parse(text) : null;
  const { response } = (request.routeOptions.schema ?? {}) as { response?: Record<number, z.ZodType> };
  const schema = type === 'application/problem+json' ? problem : response?.[reply.statusCode];
  const parsed = schema?.safeParse(said);
  if (parsed?.success && isDeepStrictEqual(parsed.data, said)) return;
  const why = parsed ? (parsed.error?.message ?? 'has more in it than its schema') : 'no schema says so';
  MISFITS.push(`${route}: ${why}`);
}

/**
 * The same, and by what is published of it too, for a validator that is none of ours. It takes long to be made: for the tests that go
 * over every route.
 */
export function parsePublished(): AnswerWatch {
  const published = publishedAnswers();
  return (request, reply, payload) => {
    parseAnswer(request, reply, payload);
    const { method, routeOptions } = request;
    const type = String(reply.getHeader('content-type') ?? '').split(';')[0]!;
    const path = routeOptions.url?.replaceAll(/:(\w+)/g, '{$1}') ?? '';
    if (!path.startsWith('/api/') || path === '/api/openapi.json') return;
    const text = asText(payload);
    if (text === null || !type.endsWith('json')) return;
    const body: unknown = text === '' ? null : JSON.parse(text);
    const misfit = published(method.toLowerCase(), path, reply.statusCode, type, body);
    if (misfit) MISFITS.push(misfit);
  };
}

/** Answers that were not what their routes say; every test ends by seeing that there are none. */
const MISFITS: string[] = [];
afterEach(() => expect(MISFITS.splice(0)).toEqual([]));

/** Makes an empty database in the tests' cluster; gives its address. */
export const emptyDatabase = (): Promise<string> => newDatabase('template1');

/** Makes a database like another one, that nobody is connected to. */
async function newDatabase(like: string): Promise<string> {
  const url = new URL(inject('clusterUrl'));
  const admin = connect(url.href);
  const name = `test_${randomUUID().replaceAll('-', '')}`;
  await admin.raw(`create database ${name} template ${like}`);
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
