import swagger from '@fastify/swagger';
import * as builds from '@zero-lash/contract/builds';
import * as engines from '@zero-lash/contract/engines';
import * as instruments from '@zero-lash/contract/instruments';
import * as measuring from '@zero-lash/contract/measuring';
import * as people from '@zero-lash/contract/people';
import { problem } from '@zero-lash/contract/problems';
import { pastRecheck } from '@zero-lash/contract/rechecks';
import { setting } from '@zero-lash/contract/setting';
import { pattern } from '@zero-lash/contract/pattern';
import * as sheets from '@zero-lash/contract/sheets';
import { today } from '@zero-lash/contract/today';
import { turning, turningRow } from '@zero-lash/contract/turning';
import type { FastifyInstance } from 'fastify';
import plugin from 'fastify-plugin';
import { createJsonSchemaTransform, createJsonSchemaTransformObject } from 'fastify-type-provider-zod';
import { z } from 'zod';

/** What is described once, and referred to by name wherever else it stands. */
const NAMED = {
  BuildHead: builds.buildHead,
  BuildWrite: builds.buildWrite,
  Note: builds.noteRow,
  Tick: builds.tickRow,
  Engine: engines.engineRow,
  EngineView: engines.engineView,
  Bench: instruments.bench,
  Instrument: instruments.instrument,
  Conditions: measuring.conditionsRow,
  Reading: measuring.readingRow,
  ReadingTaken: measuring.reading,
  Round: measuring.round,
  RoundRow: measuring.roundRow,
  Person: people.person,
  Shop: people.shop,
  Problem: problem,
  Recheck: pastRecheck,
  Setting: setting,
  Pattern: pattern,
  SheetBody: sheets.sheetBody,
  SheetRevision: sheets.sheetRevision,
  Today: today,
  Turning: turning,
  TurningRow: turningRow,
} as const;

const schemaRegistry = z.registry<{ id: string }>();
for (const [id, schema] of Object.entries(NAMED)) schemaRegistry.add(schema, { id });

const INFO = {
  title: 'Zero Lash',
  version: '1',
  description: [
    'Every write but signing in carries an `idempotency-key` header, a UUID: sent again with the same key it is written once.',
    'What is written at a bench gets that key as its id, and may carry `device-clock`, what the sending device’s clock shows.',
    'Refusals are `application/problem+json` with a stable `code`.',
    'Lengths are in mm, angles in crank degrees, moments in UTC.',
  ].join(' '),
};

/** Describes every route that is registered after it, by the schemas that read what comes in and that answers are held to. */
export const openApi = plugin(async (app: FastifyInstance) => {
  await app.register(swagger, {
    openapi: {
      openapi: '3.1.0',
      info: INFO,
      components: { securitySchemes: { session: { type: 'apiKey', in: 'cookie', name: 'zero_lash' } } },
      security: [{ session: [] }],
    },
    transform: createJsonSchemaTransform({ schemaRegistry }) as never,
    transformObject: createJsonSchemaTransformObject({ schemaRegistry }) as never,
  });
});

interface Operation extends Record<string, unknown> {
  parameters?: object[];
  responses?: object;
}

/** An OpenAPI 3.1 document, as far as this looks into it. */
export interface OpenApiDocument extends Record<string, unknown> {
  readonly paths: Readonly<Record<string, Readonly<Record<string, Operation>>>>;
}

const READS = new Set(['get', 'head']);
const PREFIX = '/api/';
const REFUSED = {
  description: 'refused, with why',
  content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
};
const KEY = {
  name: 'idempotency-key',
  in: 'header',
  required: true,
  schema: { type: 'string', format: 'uuid' },
};

/**
 * The document of a server that is ready, with what holds of every operation in it.
 *
 * @example describe(app).paths['/api/builds/{id}/ticks']?.post
 */
export function describe(app: FastifyInstance): OpenApiDocument {
  const document = JSON.parse(JSON.stringify(app.swagger(), plainly)) as OpenApiDocument;
  for (const [path, operations] of Object.entries(document.paths))
    for (const [method, operation] of Object.entries(operations)) {
      const name = path.slice(PREFIX.length);
      operation.operationId = `${method}-${name.replace(/[^\w]+/g, '-').replace(/-$/, '')}`;
      operation.tags = [name.split('/')[0]];
      operation.responses = { ...operation.responses, default: REFUSED };
      if (!READS.has(method) && !(method === 'post' && name === 'session'))
        operation.parameters = [...(operation.parameters ?? []), KEY];
    }
  return document;
}

/** Leaves out what a format says already, and limits that only say that a number is one. */
function plainly(name: string, value: unknown): unknown {
  // where both are keywords: among the properties of a thing they are names, and schemas of their own
  if (
    value &&
    typeof value === 'object' &&
    'format' in value &&
    typeof value.format === 'string' &&
    'pattern' in value
  )
    return { ...value, pattern: undefined };
  const limit = name === 'minimum' || name === 'maximum';
  return limit && Math.abs(value as number) === Number.MAX_SAFE_INTEGER ? undefined : value;
}
