/**
 * The certificate with which a house serves its tablets over HTTPS on its own network: an authority of the house, made once and
 * trusted once on each tablet, and a server certificate signed by it, made anew before it runs out or when the addresses change.
 */
import { generateKeyPairSync, randomBytes } from 'node:crypto';
import { chmodSync, existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import forge from 'node-forge';
import { hasConstraints, nameConstraints } from './nameConstraints.ts';

export interface HouseCertificate {
  readonly key: string;
  /** The server's certificate, and the authority's behind it. */
  readonly cert: string;
  /** What a tablet is asked to trust. */
  readonly authority: string;
  readonly until: Date;
}

const DAY = 86_400_000;
const AUTHORITY_DAYS = 1_826;
/** Tablets refuse server certificates that are valid for longer than 398 days, and own authorities' longer than 825. */
const SERVER_DAYS = 397;
const RENEW_DAYS = 30;

const { pki } = forge;

const keyPair = (): string =>
  generateKeyPairSync('rsa', {
    modulusLength: 2048,
    publicKeyEncoding: { type: 'spki', format: 'pem' },
    privateKeyEncoding: { type: 'pkcs1', format: 'pem' },
  }).privateKey;

const keep = (file: string, text: string): void => {
  writeFileSync(file, text, { mode: 0o600 });
  chmodSync(file, 0o600);
};

interface Making {
  readonly subject: string;
  readonly days: number;
  readonly now: Date;
  readonly key: string;
  readonly extensions: object[];
  readonly by?: { readonly cert: forge.pki.Certificate; readonly key: string };
}

function make({ subject, days, now, key, extensions, by }: Making): string {
  const cert = pki.createCertificate();
  const own = pki.privateKeyFromPem(key);
  cert.publicKey = pki.setRsaPublicKey(own.n, own.e);
  // positive, and no zero in front: one in 256 was written in a way that OpenSSL refuses to read
  cert.serialNumber = `01${randomBytes(16).toString('hex')}`;
  cert.validity.notBefore = new Date(now.getTime() - DAY);
  cert.validity.notAfter = new Date(now.getTime() + days * DAY);
  const name = [
    { name: 'organizationName', value: 'Zabrik, this house' },
    { name: 'commonName', value: subject },
  ];
  cert.setSubject(name);
  cert.setIssuer(by === undefined ? name : by.cert.subject.attributes);
  cert.setExtensions(extensions);
  cert.sign(by === undefined ? own : pki.privateKeyFromPem(by.key), forge.md.sha256.create());
  return pki.certificateToPem(cert);
}

const namesOf = (cert: forge.pki.Certificate): string[] => {
  const extension = cert.getExtension('subjectAltName') as { altNames?: { value?: string; ip?: string }[] } | null;
  return (extension?.altNames ?? []).map((n) => n.ip ?? n.value ?? '').sort();
};

/**
 * Reads the house's certificate from a folder, or makes what is missing, out of date or for other addresses.
 *
 * Keeps   the authority as long as it is valid and the machine keeps its name: tablets have to trust it once, not at every renewal. It can
 *         vouch for this machine's names and for private addresses only: whoever steals its key cannot pose as a bank.
 */
export function houseCertificate(
  folder: string,
  names: readonly string[],
  addresses: readonly string[],
  now: Date,
): HouseCertificate {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const file = (name: string): string => join(folder, name);
  const read = (name: string): string | undefined =>
    existsSync(file(name)) ? readFileSync(file(name), 'utf8') : undefined;
  const good = (pem: string | undefined, days: number): pem is string =>
    pem !== undefined && pki.certificateFromPem(pem).validity.notAfter.getTime() > now.getTime() + days * DAY;

  let authority = read('authority.crt');
  let authorityKey = read('authority.key');
  const constraints = nameConstraints(names, addresses);
  let fresh = false;
  if (
    !good(authority, SERVER_DAYS) ||
    authorityKey === undefined ||
    !hasConstraints(pki.certificateFromPem(authority), constraints)
  ) {
    authorityKey = keyPair();
    authority = make({
      subject: `Zabrik house authority ${now.toISOString().slice(0, 10)}`,
      days: AUTHORITY_DAYS,
      now,
      key: authorityKey,
      extensions: [
        { name: 'basicConstraints', cA: true, pathLenConstraint: 0, critical: true },
        { name: 'keyUsage', keyCertSign: true, cRLSign: true, critical: true },
        { name: 'subjectKeyIdentifier' },
        constraints,
      ],
    });
    keep(file('authority.key'), authorityKey);
    keep(file('authority.crt'), authority);
    fresh = true;
  }
  const wanted = [...names, ...addresses].sort();
  let cert = read('server.crt');
  let key = read('server.key');
  const same = cert !== undefined && JSON.stringify(namesOf(pki.certificateFromPem(cert))) === JSON.stringify(wanted);
  if (fresh || !good(cert, RENEW_DAYS) || key === undefined || !same) {
    key = keyPair();
    const issuer = pki.certificateFromPem(authority);
    cert = make({
      subject: names[0] ?? 'zabrik',
      days: SERVER_DAYS,
      now,
      key,
      by: { cert: issuer, key: authorityKey },
      extensions: [
        { name: 'basicConstraints', cA: false, critical: true },
        { name: 'keyUsage', digitalSignature: true, keyEncipherment: true, critical: true },
        { name: 'extKeyUsage', serverAuth: true },
        {
          name: 'subjectAltName',
          altNames: [...names.map((value) => ({ type: 2, value })), ...addresses.map((ip) => ({ type: 7, ip }))],
        },
        { name: 'authorityKeyIdentifier', keyIdentifier: issuer.generateSubjectKeyIdentifier().getBytes() },
      ],
    });
    keep(file('server.key'), key);
    keep(file('server.crt'), cert);
  }
  return { key, cert: cert + authority, authority, until: pki.certificateFromPem(cert).validity.notAfter };
}
