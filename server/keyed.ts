import { createHmac } from 'node:crypto';

/** What a keyed hash is made for: one made for one thing says nothing of another. */
export type Purpose = 'cookie' | 'session' | 'device' | 'write' | 'passphrase' | 'name' | 'calendar';

/**
 * A hash that nobody can make, or guess an input of, without the shop's secret, which stands outside the database.
 *
 * @returns 64 hexadecimal digits
 * @example keyed(secret, 'session', sessionId)
 */
export function keyed(secret: string, purpose: Purpose, text: string): string {
  return createHmac('sha256', secret).update(`${purpose}\n`).update(text).digest('hex');
}
