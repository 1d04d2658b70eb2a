import { X509Certificate } from 'node:crypto';
import { mkdtempSync, readFileSync, statSync } from 'node:fs';
import { type ClientRequest, type IncomingMessage, request as plainRequest, type RequestOptions } from 'node:http';
import { createServer as createTlsServer, request as tlsRequest } from 'node:https';
import type { AddressInfo } from 'node:net';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import forge from 'node-forge';
import { afterAll, describe, expect, it } from 'vitest';
import { openLog } from '../openServices.ts';
import { houseCertificate } from './houseCertificate.ts';
import { serveLan } from './serveLan.ts';
import { trustPage } from './trustPage.ts';

const folder = (): string => mkdtempSync(join(tmpdir(), 'zabrik-lan-'));
const DAY = 86_400_000;
const names = ['localhost', 'kitchen.local'];

// judged by Node's own X.509 reader (OpenSSL), not by the library that made it
describe('the house’s certificate', () => {
  it('is signed by an authority that is kept, for these names and addresses, for less than 398 days', () => {
    const dir = folder();
    const now = new Date();
    const made = houseCertificate(dir, names, ['192.168.7.20', '127.0.0.1'], now);
    const server = new X509Certificate(made.cert);
    const authority = new X509Certificate(made.authority);
    expect(server.verify(authority.publicKey)).toBe(true);
    expect(server.checkIssued(authority)).toBe(true);
    expect(authority.ca).toBe(true);
    expect((Date.parse(authority.validTo) - now.getTime()) / DAY).toBeLessThan(5 * 366);
    expect(server.ca).toBe(false);
    expect(server.checkHost('kitchen.local')).toBe('kitchen.local');
    expect(server.checkIP('192.168.7.20')).toBe('192.168.7.20');
    expect(server.checkHost('elsewhere.invalid')).toBeUndefined();
    expect((made.until.getTime() - now.getTime()) / DAY).toBeLessThan(398);
    expect(houseCertificate(dir, names, ['192.168.7.20', '127.0.0.1'], now)).toEqual(made);
    for (const file of ['authority.key', 'server.key']) expect(statSync(join(dir, file)).mode & 0o077).toBe(0);
  });

  it('is made anew before it runs out and when the address changes, under the same authority', () => {
    const dir = folder();
    const now = new Date();
    const first = houseCertificate(dir, names, ['10.0.0.4'], now);
    expect(houseCertificate(dir, names, ['10.0.0.4'], new Date(now.getTime() + 360 * DAY)).cert).toBe(first.cert);
    const renewed = houseCertificate(dir, names, ['10.0.0.4'], new Date(now.getTime() + 370 * DAY));
    expect(renewed.cert).not.toBe(first.cert);
    expect(renewed.until.getTime()).toBeGreaterThan(first.until.getTime());
    const moved = houseCertificate(dir, names, ['10.0.0.9'], new Date(now.getTime() + 371 * DAY));
    expect(new X509Certificate(moved.cert).checkIP('10.0.0.9')).toBe('10.0.0.9');
    expect([renewed.authority, moved.authority]).toEqual([first.authority, first.authority]);
    expect(readFileSync(join(dir, 'authority.crt'), 'utf8')).toBe(first.authority);
  });
});

describe('the house’s authority', () => {
  /** A server certificate for any name, by whoever has the authority's key. */
  const forged = (dir: string, altName: object) => {
    const { pki } = forge;
    const authority = pki.certificateFromPem(readFileSync(join(dir, 'authority.crt'), 'utf8'));
    const keys = pki.privateKeyFromPem(readFileSync(join(dir, 'server.key'), 'utf8'));
    const cert = pki.createCertificate();
    cert.publicKey = pki.setRsaPublicKey(keys.n, keys.e);
    cert.serialNumber = '0101';
    cert.validity.notBefore = new Date(Date.now() - DAY);
    cert.validity.notAfter = new Date(Date.now() + DAY);
    cert.setSubject([{ name: 'commonName', value: 'x' }]);
    cert.setIssuer(authority.subject.attributes);
    cert.setExtensions([{ name: 'subjectAltName', altNames: [altName] }]);
    cert.sign(pki.privateKeyFromPem(readFileSync(join(dir, 'authority.key'), 'utf8')), forge.md.sha256.create());
    return { cert: pki.certificateToPem(cert), key: pki.privateKeyToPem(keys) };
  };
  const trusts = (ca: string, server: { cert: string; key: string }, servername: string): Promise<string> =>
    new Promise((resolve) => {
      const listener = createTlsServer(server, (_q, response) => response.end('in')).listen(0, '127.0.0.1', () => {
        const { port } = listener.address() as AddressInfo;
        const request = tlsRequest({ host: '127.0.0.1', port, ca, servername, headers: { host: servername } }, (r) => {
          r.resume();
          done('trusted');
        });
        const done = (said: string): void => {
          listener.close();
          listener.closeAllConnections();
          resolve(said);
        };
        request.on('error', (error: NodeJS.ErrnoException) => done(error.message));
        request.end();
      });
    });

  it('vouches for its own machine and for nobody else: a stolen key poses as no bank', async () => {
    const dir = folder();
    const { authority, cert, key } = houseCertificate(dir, names, ['192.168.7.20', '93.184.215.14'], new Date());
    expect(await trusts(authority, { cert, key }, 'kitchen.local')).toBe('trusted');
    expect(await trusts(authority, forged(dir, { type: 2, value: 'kitchen.local' }), 'kitchen.local')).toBe('trusted');
    expect(await trusts(authority, forged(dir, { type: 2, value: 'bank.example' }), 'bank.example')).toBe(
      'permitted subtree violation',
    );
    expect(await trusts(authority, forged(dir, { type: 7, ip: '93.184.215.15' }), '')).toBe(
      'permitted subtree violation',
    );
  });

  it('is made anew when the machine gets another name, and by a program that limits what it may vouch for', () => {
    const dir = folder();
    const first = houseCertificate(dir, names, ['10.0.0.4'], new Date());
    const renamed = houseCertificate(dir, ['localhost', 'pass.local'], ['10.0.0.4'], new Date());
    expect(renamed.authority).not.toBe(first.authority);
  });
});

describe('serving the kitchen’s network', () => {
  const closers: (() => void)[] = [];
  afterAll(() => {
    for (const close of closers) close();
  });
  const freePort = (): Promise<number> =>
    new Promise((resolve) => {
      const probe = createServer().listen(0, '127.0.0.1', () => {
        const { port } = probe.address() as AddressInfo;
        probe.close(() => resolve(port));
      });
    });
  const get = (
    ask: (options: RequestOptions, answered: (response: IncomingMessage) => void) => ClientRequest,
    options: RequestOptions & { readonly ca?: string },
  ): Promise<{ status: number | undefined; text: string; type: string | undefined; hsts: string | undefined }> =>
    new Promise((resolve, reject) => {
      const request = ask(options, (response) => {
        let text = '';
        response.on('data', (chunk: Buffer) => (text += chunk.toString()));
        response.on('end', () =>
          resolve({
            status: response.statusCode,
            text,
            type: response.headers['content-type'],
            hsts: response.headers['strict-transport-security'],
          }),
        );
      });
      request.on('error', reject);
      request.end();
    });

  it('speaks TLS that a tablet trusts once it has the authority, and hands the authority out over plain http', async () => {
    const port = await freePort();
    const { servers, says } = await serveLan(
      folder(),
      port,
      (_request, response) => response.end('the app'),
      openLog('silent'),
      ['127.0.0.1'],
    );
    closers.push(() => {
      for (const s of servers) s.close();
    });
    expect(says).toContain(`https://127.0.0.1:${port}`);
    expect(says).toContain('▄');
    const handed = await get(plainRequest, { host: '127.0.0.1', port: port + 1, path: '/house-certificate.crt' });
    expect(handed).toMatchObject({ status: 200, type: 'application/x-x509-ca-cert' });
    const page = await get(plainRequest, { host: '127.0.0.1', port: port + 1, path: '/trust' });
    expect(page.text).toContain(`https://127.0.0.1:${port}`);
    const { fingerprint256 } = new X509Certificate(handed.text);
    expect(page.text).toContain(fingerprint256);
    expect(says).toContain(fingerprint256);
    // nothing of the kitchen travels in the open
    for (const path of ['/api/v1/houses', '/index.html', '/api/v1/sign-in'])
      expect(await get(plainRequest, { host: '127.0.0.1', port: port + 1, path })).toMatchObject({ status: 404 });
    await expect(get(tlsRequest, { host: '127.0.0.1', port, path: '/' })).rejects.toThrow(/certificate|self-signed/);
    const trusted = await get(tlsRequest, { host: '127.0.0.1', port, path: '/', ca: handed.text });
    expect(trusted).toMatchObject({ status: 200, text: 'the app', hsts: 'max-age=31536000' });
  });

  it('says so when this machine is on no network, and never writes an address as markup', async () => {
    await expect(serveLan(folder(), 0, () => undefined, openLog('silent'), [])).rejects.toThrow('on no network');
    expect(trustPage('https://a"><script>', 'AB:CD')).not.toContain('<script>');
  });
});
