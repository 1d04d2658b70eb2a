import { randomUUID } from 'node:crypto';
import type { Page } from '@playwright/test';

/** Asks the server as the screens do, from within the page. */
export const ask = async <T>(page: Page, path: string, body?: unknown): Promise<T> => {
  const sent = [`/api/v1${path}`, body === undefined ? undefined : JSON.stringify(body), randomUUID()] as const;
  const once = () =>
    page.evaluate(async ([url, json, key]) => {
      const response = await fetch(url ?? '', {
        ...(json === undefined ? {} : { method: 'POST', body: json }),
        headers: { 'content-type': 'application/json', 'idempotency-key': key ?? '' },
      });
      return { status: response.status, text: await response.text() };
    }, sent);
  let reply = await once();
  // a server that says "not now" is asked again under the same key, as the screens do
  for (let i = 0; i < 20 && reply.status === 503; i += 1) {
    await page.waitForTimeout(1_000);
    reply = await once();
  }
  if (reply.status !== 200) throw new Error(`${path} ${reply.status} ${reply.text}`);
  return JSON.parse(reply.text) as T;
};
export const get = <T>(page: Page, path: string): Promise<T> => ask<T>(page, path);
export const post = <T>(page: Page, path: string, data: unknown): Promise<T> => ask<T>(page, path, data);
