import { hostname, networkInterfaces } from 'node:os';

/** How long what the machine says of itself is taken as it was. */
const FRESH_MS = 5000;

let asked: { readonly at: number; readonly addresses: readonly string[] } | undefined;

/** The addresses other machines of the network reach this one by, IPv4 first; loopback is not among them. */
export function ownAddresses(): readonly string[] {
  if (asked && Date.now() - asked.at < FRESH_MS) return asked.addresses;
  const all = Object.values(networkInterfaces())
    .flatMap((each) => each ?? [])
    // an address of one link only cannot be typed on a tablet
    .filter(({ internal, family, scopeid }) => !internal && !(family === 'IPv6' && scopeid));
  const addresses = [...all].sort((a, b) => a.family.localeCompare(b.family)).map(({ address }) => address);
  asked = { at: Date.now(), addresses };
  return addresses;
}

/** The names this machine goes by on a shop's network. */
export function ownNames(): readonly string[] {
  const [name = ''] = hostname().toLowerCase().split('.');
  return name === '' ? [] : [name, `${name}.local`];
}

/** An address as it stands in a URL. */
export const inUrl = (address: string) => (address.includes(':') ? `[${address}]` : address);
