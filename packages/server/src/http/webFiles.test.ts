/** The app as files: packed when it was built, and the reads an address needs named beside the page. */
import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, relative } from 'node:path';
import { brotliCompressSync, gzipSync } from 'node:zlib';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';

const SCRIPT = 'export const weighed = 1;\n'.repeat(50);
let kitchen: TestKitchen;
let ines: Tablet;
beforeAll(async () => {
  const dist = mkdtempSync(join(tmpdir(), 'zabrik-web-'));
  mkdirSync(join(dist, 'assets'));
  writeFileSync(join(dist, 'index.html'), '<!doctype html><title>Zabrik</title>');
  writeFileSync(join(dist, 'assets/app.js'), SCRIPT);
  writeFileSync(join(dist, 'assets/app.js.br'), brotliCompressSync(SCRIPT));
  writeFileSync(join(dist, 'assets/app.js.gz'), gzipSync(SCRIPT));
  kitchen = await openTestKitchen({ settings: { WEB_DIST: relative(process.cwd(), dist) } });
  ines = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
});
afterAll(() => kitchen.stop());

const linksOf = async (path: string, cookie = ines.cookie): Promise<readonly string[]> => {
  const reply = await fetch(`${kitchen.base}${path}`, { headers: { cookie } });
  expect(reply.status).toBe(200);
  expect(await reply.text()).toContain('Zabrik');
  return [...(reply.headers.get('link') ?? '').matchAll(/<([^>]+)>; rel=preload; as=fetch/g)].map((m) => m[1] ?? '');
};

it('an address names what its page is about to ask for, to those who are signed in', async () => {
  const id = '019a0000-0000-7000-8000-00000000000a';
  expect(await linksOf('/larder')).toEqual(['/api/v1/session', '/api/v1/house']);
  expect(await linksOf(`/bench/${id}`)).toEqual(['/api/v1/session', '/api/v1/house', `/api/v1/breakdowns/${id}`]);
  expect(await linksOf('/bench/plans')).toHaveLength(2);
  expect(await linksOf('/bench/%3E;rel=stylesheet')).toHaveLength(2);
  expect(await linksOf('/sign-in')).toEqual([]);
  expect(await linksOf(`/bench/${id}`, '')).toEqual([]);
});

it.each([
  ['gzip, deflate, br', 'br'],
  ['gzip', 'gzip'],
  ['identity', null],
])('a script goes out as it was packed, to a browser that takes %s', async (takes, packed) => {
  const reply = await fetch(`${kitchen.base}/assets/app.js`, { headers: { 'accept-encoding': takes } });
  expect(reply.headers.get('content-encoding')).toBe(packed);
  expect(reply.headers.get('content-type')).toMatch(/javascript/);
  expect(reply.headers.get('cache-control')).toMatch(/immutable/);
  expect(await reply.text()).toBe(SCRIPT);
});
