import { randomBytes } from 'node:crypto';
import { isIP } from 'node:net';
import { promisify } from 'node:util';
import ipaddr from 'ipaddr.js';
import type { Certificate } from 'mkcert';
import forge from 'node-forge';

const { asn1, pki, md } = forge;

/** The networks a shop's machines stand in, whatever address they are given there. */
const SHOPS_OWN = [
  ...['10.0.0.0/8', '172.16.0.0/12', '192.168.0.0/16', '169.254.0.0/16', '127.0.0.0/8'],
  ...['fc00::/7', 'fe80::/10', '::1/128'],
];
const WHO = [
  { name: 'commonName', value: 'Zero Lash, this shop' },
  { name: 'organizationName', value: 'Zero Lash, this shop' },
];
const SERIAL_BYTES = 15;

/**
 * Makes a certificate authority that can vouch for some names, for `localhost` and for addresses of private networks, and for nothing
 * else (RFC 5280, 4.2.1.10, critical): whoever got hold of its key could show a tablet that trusts it no page of a stranger's.
 *
 * @param names names and addresses besides
 * @param days how long it holds
 */
export async function limitedAuthority(names: readonly string[], days: number): Promise<Certificate> {
  const keys = await promisify(pki.rsa.generateKeyPair.bind(pki.rsa))({ bits: 2048, workers: -1 });
  const cert = pki.createCertificate();
  cert.publicKey = keys.publicKey;
  // a positive number, as DER wants it
  cert.serialNumber = `01${randomBytes(SERIAL_BYTES).toString('hex')}`;
  cert.setSubject(WHO);
  cert.setIssuer(WHO);
  cert.validity.notAfter = new Date(cert.validity.notBefore.getTime() + days * 86_400_000);
  cert.setExtensions([
    { name: 'basicConstraints', cA: true, pathLenConstraint: 0, critical: true },
    { name: 'keyUsage', keyCertSign: true, critical: true },
    { id: '2.5.29.30', critical: true, value: permitted(names) },
  ]);
  cert.sign(keys.privateKey, md.sha256.create());
  return { key: pki.privateKeyToPem(keys.privateKey), cert: pki.certificateToPem(cert) };
}

/** The names that are permitted: `NameConstraints`, with each a `GeneralSubtree` of a name or of a network with its mask. */
function permitted(names: readonly string[]): forge.asn1.Asn1 {
  const addresses = names.filter((name) => isIP(name) !== 0);
  const subtrees = [
    ...['localhost', ...names.filter((name) => isIP(name) === 0)].map((name) => general(2, name)),
    ...[...SHOPS_OWN, ...addresses.map((each) => `${each}/${isIP(each) === 4 ? 32 : 128}`)].map((network) =>
      general(7, maskedBytes(network)),
    ),
  ];
  const { SEQUENCE } = asn1.Type;
  return asn1.create(asn1.Class.UNIVERSAL, SEQUENCE, true, [
    asn1.create(
      asn1.Class.CONTEXT_SPECIFIC,
      0,
      true,
      subtrees.map((name) => asn1.create(asn1.Class.UNIVERSAL, SEQUENCE, true, [name])),
    ),
  ]);
}

const general = (type: number, value: string) => asn1.create(asn1.Class.CONTEXT_SPECIFIC, type, false, value);

/** A network as its address and its mask, one after the other. */
function maskedBytes(network: string): string {
  const [address, bits] = ipaddr.parseCIDR(network);
  const kind = address.kind() === 'ipv4' ? ipaddr.IPv4 : ipaddr.IPv6;
  const bytes = [...address.toByteArray(), ...kind.subnetMaskFromPrefixLength(bits).toByteArray()];
  return String.fromCharCode(...bytes);
}
