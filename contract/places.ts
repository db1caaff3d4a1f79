import ipaddr from 'ipaddr.js';

/** Where a gauge or a meter feed is reached. */
export interface Place {
  readonly host: string;
  readonly port: number;
  /** on the server's own machine */
  readonly here: boolean;
}

const MOST_PORT = 65_535;
/** Ranges of addresses that lead out of no shop. */
const SHOPS_OWN = new Set(['private', 'linkLocal']);
/** Where hired machines tell what only they should know: nobody measures there. */
const NEVER = new Set(['169.254.169.254']);

/**
 * Understands where something of the shop's own is reached: `host:port`, the host an IPv4 address of this machine or of a private
 * network. Names are none: what a name leads to is said by others, and can change between two looks.
 *
 * @returns null for any other, so that no server is sent to a stranger's machine
 * @example ownPlace('127.0.0.1:4519') // { host: '127.0.0.1', port: 4519, here: true }
 */
export function ownPlace(address: string): Place | null {
  const match = /^([\d.]{7,15}|localhost):(\d{1,5})$/.exec(address);
  if (!match) return null;
  const [, name = '', digits] = match;
  const host = name === 'localhost' ? '127.0.0.1' : name;
  const port = Number(digits);
  if (!ipaddr.IPv4.isValidFourPartDecimal(host) || port < 1 || port > MOST_PORT || NEVER.has(host))
    return null;
  const range = ipaddr.IPv4.parse(host).range();
  if (range !== 'loopback' && !SHOPS_OWN.has(range)) return null;
  return { host, port, here: range === 'loopback' };
}
