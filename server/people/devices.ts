import { randomBytes } from 'node:crypto';
import type { FastifyReply, FastifyRequest } from 'fastify';
import { keyed } from '../keyed.ts';

const COOKIE = 'zero_lash_device';
const DAYS = 400;

/** What stands in the database for a device on which a person signed in. */
function markOf(request: FastifyRequest, value: string, personId: string): string {
  return keyed(request.server.secret, 'device', `${value} ${personId}`);
}

/** The mark of the device a request comes from, where this person signed in on it before; else null. */
export async function knownDevice(request: FastifyRequest, personId: string): Promise<string | null> {
  const value = request.cookies[COOKIE];
  if (!value) return null;
  const mark = markOf(request, value, personId);
  const found = await request.server.db('known_devices').where({ mark }).first('mark');
  return found ? mark : null;
}

/** Remembers that a person signed in on this device. */
export async function rememberDevice(
  request: FastifyRequest,
  reply: FastifyReply,
  personId: string,
): Promise<void> {
  const value = request.cookies[COOKIE] ?? randomBytes(32).toString('hex');
  await request.server
    .db('known_devices')
    .insert({ mark: markOf(request, value, personId), person_id: personId })
    .onConflict('mark')
    .merge({ last_at: request.server.db.fn.now() });
  void reply.setCookie(COOKIE, value, {
    httpOnly: true,
    sameSite: 'strict',
    secure: request.protocol === 'https',
    path: '/api/session',
    maxAge: DAYS * 86_400,
  });
}
