import { createHash, X509Certificate } from 'node:crypto';
import { join } from 'node:path';
import { createCert, type Certificate } from 'mkcert';
import { madeOnce } from '../madeOnce.ts';
import { limitedAuthority } from './limitedAuthority.ts';

const AUTHORITY_DAYS = 3650;
/** Tablets trust no server certificate that holds longer than about thirteen months. */
const SERVER_DAYS = 397;

/** The shop's own certificate authority: made once, and kept where only the server reads it. */
export interface Authority extends Certificate {
  /** SHA-256 of its certificate, in pairs, as a tablet shows it */
  readonly fingerprint: string;
  /** it can vouch for nobody else's names; one that was made before there was a limit can */
  readonly limited: boolean;
}

/**
 * Reads the shop's certificate authority, or makes one that can vouch for nobody but this machine and the shop's own network.
 *
 * @param folder where it is kept; its key leaves it never
 * @param names names and addresses that it is to vouch for
 */
export async function authorityIn(folder: string, names: readonly string[]): Promise<Authority> {
  const text = await madeOnce(join(folder, 'authority.json'), async () =>
    JSON.stringify(await limitedAuthority(names, AUTHORITY_DAYS)),
  );
  const kept = JSON.parse(text) as Certificate;
  const { raw } = new X509Certificate(kept.cert);
  const hex = createHash('sha256').update(raw).digest('hex').toUpperCase();
  return { ...kept, limited: raw.includes(NAME_CONSTRAINTS), fingerprint: hex.match(/../g)!.join(':') };
}

/** The standard identifier of what limits an authority to some names, as it stands in a certificate. */
const NAME_CONSTRAINTS = Buffer.from([0x06, 0x03, 0x55, 0x1d, 0x1e]);

/** Makes the certificate that a server shows at some addresses; its key is never written down. */
export async function certificateFor(
  { key, cert }: Certificate,
  addresses: readonly string[],
): Promise<Certificate> {
  // its subject is the first of them, which is read as a name
  const domains = ['localhost', ...addresses.filter((each) => each !== 'localhost')];
  const made = await createCert({ ca: { key, cert }, domains, validity: SERVER_DAYS });
  return { key: made.key, cert: `${made.cert}${cert}` };
}

/** A certificate as the bytes a tablet takes. */
export function asFile(cert: string): Buffer {
  return new X509Certificate(cert).raw;
}
