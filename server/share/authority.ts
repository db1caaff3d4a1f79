import { createHash, X509Certificate } from 'node:crypto';
import { join } from 'node:path';
import { createCA, createCert, type Certificate } from 'mkcert';
import { madeOnce } from '../madeOnce.ts';

const AUTHORITY_DAYS = 3650;
/** Tablets trust no server certificate that holds longer than about thirteen months. */
const SERVER_DAYS = 397;

/** The shop's own certificate authority: made once, and kept where only the server reads it. */
export interface Authority extends Certificate {
  /** SHA-256 of its certificate, in pairs, as a tablet shows it */
  readonly fingerprint: string;
}

/**
 * Reads the shop's certificate authority, or makes it.
 *
 * @param folder where it is kept; its key leaves it never
 */
export async function authorityIn(folder: string): Promise<Authority> {
  const text = await madeOnce(join(folder, 'authority.json'), async () =>
    JSON.stringify(
      await createCA({
        organization: 'Zero Lash, this shop',
        countryCode: 'ZZ',
        state: 'Shop',
        locality: 'Shop',
        validity: AUTHORITY_DAYS,
      }),
    ),
  );
  const kept = JSON.parse(text) as Certificate;
  const { raw } = new X509Certificate(kept.cert);
  const hex = createHash('sha256').update(raw).digest('hex').toUpperCase();
  return { ...kept, fingerprint: hex.match(/../g)!.join(':') };
}

/** Makes the certificate that a server shows at some addresses; its key is never written down. */
export async function certificateFor(
  { key, cert }: Certificate,
  addresses: readonly string[],
): Promise<Certificate> {
  const made = await createCert({ ca: { key, cert }, domains: [...addresses], validity: SERVER_DAYS });
  return { key: made.key, cert: `${made.cert}${cert}` };
}

/** A certificate as the bytes a tablet takes. */
export function asFile(cert: string): Buffer {
  return new X509Certificate(cert).raw;
}
