import { createServer, type RequestListener, type Server } from 'node:http';
import { createServer as createTlsServer } from 'node:https';
import type { Logger } from 'pino';
import { toString as qrCode } from 'qrcode';
import { lanAddresses, lanNames } from './addresses.ts';
import { houseCertificate } from './houseCertificate.ts';
import { trustPage } from './trustPage.ts';

const DAY_MS = 86_400_000;

const listening = (server: Server, port: number): Promise<void> =>
  new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '0.0.0.0', () => resolve());
  });

/**
 * Serves the kitchen's network: HTTPS on `port` with the house's own certificate, and plain http on the next, where a new tablet
 * finds what it has to trust. Looks at the certificate every day and takes a new one into use without stopping.
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
  const secure = createTlsServer({ key, cert }, handle);
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
      response.end(trustPage(home));
    } else handle(request, response);
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
  1. get the house's certificate   2. install and trust it   3. open ${home}
The certificate is good until ${until.toISOString().slice(0, 10)} and renews itself before.
`;
  return { servers: [secure, plain], says };
}
