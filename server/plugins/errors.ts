import { randomBytes } from 'node:crypto';
import type { ProblemBody } from '@zero-lash/contract/problems';
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import plugin from 'fastify-plugin';
import { hasZodFastifySchemaValidationErrors } from 'fastify-type-provider-zod';
import { writes } from './writeHealth.ts';
import { databaseRefusalCode } from './databaseErrors.ts';

/** Every refusal the server can give: its status and the sentence for a person. The code is stable. */
const REFUSALS = {
  unauthenticated: [401, 'Sign in first.'],
  wrong_passphrase: [401, 'That name and passphrase do not belong together.'],
  other_passphrase: [409, 'That is not the passphrase you have now.'],
  too_many_tries: [429, 'Too many wrong passphrases. Wait a little and try again.'],
  forbidden: [403, 'Your role may not do this.'],
  not_found: [404, 'There is nothing here by that name.'],
  invalid: [400, 'Something in what was sent cannot be right.'],
  malformed: [400, 'What was sent could not be read.'],
  too_large: [413, 'That is more than is taken at once.'],
  wrong_type: [415, 'Send JSON.'],
  key_missing: [400, 'A write needs an idempotency-key header, a UUID.'],
  key_reused: [409, 'That idempotency key was used for another write.'],
  usage_far: [409, 'That is more than can have been run since the last figure. If it is right, say so.'],
  typed_otherwise: [400, 'What was typed is another figure than the reading it came with.'],
  usage_order: [409, 'A running figure does not fit where it belongs.'],
  feed_away: [409, 'The meter feed cannot be read.'],
  feed_elsewhere: [
    400,
    'A meter feed is reached at an address of this machine or of the shop’s own network and a port, such as 127.0.0.1:4529.',
  ],
  feed_answered: [409, 'This line of the feed is dealt with.'],
  recheck_move: [409, 'A recheck cannot be moved like that.'],
  stale: [409, 'Somebody changed this since you opened it.'],
  name_taken: [409, 'That name is taken.'],
  last_lead: [409, 'The shop needs at least one active lead.'],
  build_open: [409, 'This engine has a build open already.'],
  build_closed: [409, 'This build is closed.'],
  stage_skipped: [409, 'Stages are done one after another.'],
  stage_not_ready: [409, 'This stage is not finished.'],
  tool_in: [409, 'A tool holds a valve down: take it out before the crank is turned.'],
  came_in_since: [409, 'More has come in since this was read: look at it, then sign.'],
  wrong_stage: [409, 'That belongs to another stage.'],
  own_second: [409, 'A second look is another person’s: you measured this point yourself.'],
  other_means: [422, 'That point is set another way.'],
  unknown_check: [422, 'This stage has no such check.'],
  unknown_place: [422, 'This engine has no such place.'],
  set_since: [409, 'Something else was done there since.'],
  not_there: [409, 'More would go out than lies there.'],
  bad_record: [422, 'That record cannot be imported.'],
  not_ordered: [409, 'More came than was ordered.'],
  order_closed: [409, 'That order is closed: write what came down as bought.'],
  not_a_picture: [422, 'That is no picture that is taken here.'],
  unknown_point: [422, 'This engine has no such lash point.'],
  round_closed: [409, 'This round is closed.'],
  already_signed_off: [409, 'This build is signed off already.'],
  not_provable: [409, 'This build cannot be signed off yet.'],
  recheck_done: [409, 'This recheck is done already.'],
  nothing_to_set: [409, 'That recheck is not one to set again: it was not judged, or was overtaken.'],
  recheck_incomplete: [409, 'Measure every point first.'],
  usage_last: [409, 'It is the only figure there is: log the right one first.'],
  taken_when: [409, 'It cannot have been done at the time that is said.'],
  wrong_round: [409, 'That is not measured at both engines now.'],
  nothing_to_move: [409, 'Nothing stands at those points that could be moved.'],
  no_plan: [409, 'This engine is looked at by no plan: a lead gives it one first.'],
  sheet_not_published: [409, 'Only a published spec sheet may be built on.'],
  sheet_differs: [409, 'This spec sheet is not for this engine.'],
  draft_open: [409, 'This sheet has a draft already.'],
  second_person: [409, 'A second person checks a spec sheet.'],
  gauge_unreached: [409, 'That gauge is not reached, or is a real one.'],
  engine_put_away: [409, 'This engine was retired: bring it back first.'],
  engine_on_bench: [409, 'A build of this engine is on the bench: finish it or abandon it first.'],
  not_abandoned: [409, 'This build was not abandoned.'],
  not_acceptable: [409, 'This point cannot be left as it is.'],
  measured_by_it: [
    409,
    'Gaps were set or proved in this build already, and stay judged by what they were read by.',
  ],
  job_smaller: [409, 'A job becomes a larger one when something is found, never a smaller one.'],
  revision_stays: [409, 'A build stays on the revision of the spec sheet that it was opened on.'],
  usage_back: [409, 'A running figure below the last one needs a reason.'],
  fixed: [409, 'What was written stays; add what supersedes it.'],
  met_another: [409, 'Somebody wrote the same at the same moment. Look again, and try once more.'],
  address_not_allowed: [422, 'A gauge is reached on this machine, unless a lead allows the shop’s network.'],
  address_malformed: [400, 'That address cannot be read.'],
  expectation: [417, 'This server cannot do what was expected of it.'],
  too_slow: [408, 'What was sent did not come in good time.'],
  other_host: [421, 'This is not the server of that name.'],
  busy: [503, 'Many write at once just now. Try again in a moment; nothing of yours was written.'],
  too_long: [503, 'That took too long to make. Try again in a moment.'],
  cannot_write: [
    503,
    'The server cannot write just now: its disk may be full. Nothing of yours was written; your device keeps it and sends it again. Whoever looks after the server makes room.',
  ],
  waking: [503, 'The server is starting. Try again in a moment.'],
  database_away: [503, 'The shop’s records cannot be reached just now. Try again in a moment.'],
} as const satisfies Record<string, readonly [number, string]>;

/** The stable name of a refusal. */
export type RefusalCode = keyof typeof REFUSALS;

type Extra = Pick<ProblemBody, 'fields' | 'points' | 'current'> & { detail?: string };

/** A refusal with a code of its own: thrown anywhere, answered as `application/problem+json`. */
export class Refusal extends Error {
  readonly code: RefusalCode;
  readonly extra: Extra;

  constructor(code: RefusalCode, extra: Extra = {}) {
    super(extra.detail ?? REFUSALS[code][1]);
    this.code = code;
    this.extra = extra;
  }
}

const PROBLEM = 'application/problem+json';
const TRY_AGAIN_SECONDS = 2;

function problemOf(code: RefusalCode, extra: Extra = {}): ProblemBody {
  const [status, sentence] = REFUSALS[code];
  return { type: 'about:blank', title: sentence, status, code, detail: sentence, ...extra };
}

function send(reply: FastifyReply, code: RefusalCode, extra: Extra = {}) {
  const body = problemOf(code, extra);
  if (body.status === 503) void reply.header('retry-after', TRY_AGAIN_SECONDS);
  return reply.code(body.status).type(PROBLEM).send(JSON.stringify(body));
}

const BY_FASTIFY_CODE: Readonly<Record<string, RefusalCode>> = {
  FST_ERR_CTP_BODY_TOO_LARGE: 'too_large',
  FST_ERR_CTP_INVALID_MEDIA_TYPE: 'wrong_type',
  FST_ERR_CTP_EMPTY_JSON_BODY: 'malformed',
  FST_ERR_CTP_INVALID_JSON_BODY: 'malformed',
  FST_ERR_CTP_INVALID_CONTENT_LENGTH: 'malformed',
  FST_ERR_BAD_URL: 'address_malformed',
  FST_ERR_MAX_PARAM_LENGTH: 'address_malformed',
};

/** Answers every error as a problem: what a person sent wrongly is 4xx, what broke here is 5xx with a reference. */
export const errors = plugin((app: FastifyInstance, _options, done) => {
  app.setNotFoundHandler((_request, reply) => send(reply, 'not_found'));
  app.setErrorHandler(answerError);
  done();
});

/** Answers one error. What the server itself refuses before any route is asked comes here too. */
export function answerError(
  error: Error & { code?: string; statusCode?: number },
  request: FastifyRequest,
  reply: FastifyReply,
): FastifyReply {
  if (error instanceof Refusal) return send(reply, error.code, error.extra);
  // an address that cannot be one is an address of nothing
  if (hasZodFastifySchemaValidationErrors(error) && error.validationContext === 'params')
    return send(reply, 'not_found', { detail: 'There is nothing at this address.' });
  if (hasZodFastifySchemaValidationErrors(error)) {
    const fields = error.validation.map(({ instancePath, message }) => ({
      path: instancePath.split('/').filter(Boolean).join('.'),
      message: message ?? 'cannot be right',
    }));
    const detail = fields.map(({ path, message }) => `${path || 'input'}: ${message}`).join('; ');
    return send(reply, 'invalid', { detail: `${detail}.`, fields });
  }
  const known = BY_FASTIFY_CODE[error.code ?? ''];
  if (known) return send(reply, known);
  const ofDatabase = databaseRefusal(error);
  if (ofDatabase) {
    request.log.warn({ err: error }, `the database refused: ${ofDatabase.code}`);
    if (ofDatabase.code === 'cannot_write') writes.failed(error);
    return send(reply, ofDatabase.code, ofDatabase.extra);
  }
  const { statusCode = 500 } = error;
  if (error instanceof SyntaxError || (statusCode >= 400 && statusCode < 500))
    return send(reply, 'malformed');
  const reference = randomBytes(4).toString('hex');
  request.log.error({ err: error, reference }, 'request failed');
  const body: ProblemBody = {
    type: 'about:blank',
    title: 'Something broke here.',
    status: 500,
    code: 'broken',
    detail: `Something broke here, not on your side. Look whether it was written before you do it again. The log has it as ${reference}.`,
    reference,
  };
  return reply.code(500).type(PROBLEM).send(JSON.stringify(body));
}

/** A refusal as the bytes of a whole answer, for a request that never came as far as a route. */
export function rawAnswer(code: RefusalCode): string {
  const [status, sentence] = REFUSALS[code];
  const body = JSON.stringify(problemOf(code));
  return [
    `HTTP/1.1 ${status} ${sentence.replace(/[^ -~]/g, '')}`,
    `content-type: ${PROBLEM}`,
    `content-length: ${Buffer.byteLength(body)}`,
    'connection: close',
    '',
    body,
  ].join('\r\n');
}

/** What the database itself would not have, as a refusal; null for what broke. */
function databaseRefusal(error: Error & { code?: string }): Refusal | null {
  const code = databaseRefusalCode(error);
  if (code === null) return null;
  return code === 'name_taken'
    ? new Refusal(code, { fields: [{ path: 'name', message: 'is taken' }] })
    : new Refusal(code);
}
