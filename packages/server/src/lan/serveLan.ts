import { X509Certificate } from 'node:crypto';
import { createServer, type RequestListener, type Server } from 'node:http';
import { createServer as createTlsServer } from 'node:https';
import type { Logger } from 'pino';
import { toString as qrCode } from 'qrcode';
import { lanAddresses, lanNames } from './addresses.ts';
import { houseCertificate } from './houseCertificate.ts';
import { trustPage } from './trustPage.ts';

const DAY_MS = 86_400_000;

/** SHA-256 of a certificate as other machines show it: AB:CD:... */
const fingerprintOf = (pem: string): string => new X509Certificate(pem).fingerprint256;

const listening = (server: Server, port: number): Promise<void> =>
  new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '0.0.0.0', () => resolve());
  });

/**
 * Serves the kitchen's network: HTTPS on `port` with the house's own certificate. On the next, over plain http, a new tablet finds what
 * it has to trust, and nothing else: no PIN and no figure travels in the open. Looks at the certificate every day and takes a new one into use without stopping.
 *
 * Errors  when a port is taken; when this machine is on no network.
 */
export async function serveLan(
  folder: string,
  port: number,
  handle: RequestListener,
  log: Logger,
  addresses: readonly string[] = lanAddresses(),
): Promise<{ readonly servers: Server[]; readonly says: string }> {
  const [address] = addresses;
  if (address === undefined) throw new Error('this machine is on no network: there is no address a tablet could reach');
  const names = lanNames();
  const current = () => houseCertificate(folder, names, [...addresses, '127.0.0.1'], new Date());
  let { key, cert, authority, until } = current();
  const secure = createTlsServer({ key, cert }, (request, response) => {
    response.setHeader('strict-transport-security', 'max-age=31536000');
    handle(request, response);
  });
  const home = `https://${address}:${port}`;
  const plain = createServer((request, response) => {
    if (request.url === '/house-certificate.crt') {
      response.writeHead(200, {
        'content-type': 'application/x-x509-ca-cert',
        'content-disposition': 'attachment; filename="zabrik-house.crt"',
      });
      response.end(authority);
    } else if (request.url === '/trust') {
      response.writeHead(200, {
        'content-type': 'text/html; charset=utf-8',
        'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'",
      });
      response.end(trustPage(home, fingerprintOf(authority)));
    } else if (request.method === 'GET' && request.url === '/') {
      response.writeHead(302, { location: '/trust' });
      response.end();
    } else {
      response.writeHead(404, { 'content-type': 'text/plain; charset=utf-8' });
      response.end(`Only the house's certificate is here. The kitchen is at ${home}\n`);
    }
  });
  await listening(secure, port);
  await listening(plain, port + 1);
  setInterval(() => {
    const now = current();
    if (now.cert === cert) return;
    ({ key, cert, authority, until } = now);
    secure.setSecureContext({ key, cert });
    log.info({ until }, 'certificate renewed');
  }, DAY_MS).unref();
  const trust = `http://${address}:${port + 1}/trust`;
  const says = `
On the kitchen's network: ${home}
A new tablet first scans this and lets the tablet trust the house (${trust}):

${await qrCode(trust, { type: 'terminal', small: true })}
  1. get the house's certificate   2. compare its fingerprint   3. install and trust it   4. open ${home}
Fingerprint (SHA-256): ${fingerprintOf(authority)}
The certificate is good until ${until.toISOString().slice(0, 10)} and renews itself before.
`;
  return { servers: [secure, plain], says };
}
