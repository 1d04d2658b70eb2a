import { randomUUID } from 'node:crypto';
import type { Page } from '@playwright/test';

/** Asks the server as the screens do, from within the page. */
export const ask = async <T>(page: Page, path: string, body?: unknown): Promise<T> => {
  const reply = await page.evaluate(
    async ([url, sent, key]) => {
      const response = await fetch(url ?? '', {
        ...(sent === undefined ? {} : { method: 'POST', body: sent }),
        headers: { 'content-type': 'application/json', 'idempotency-key': key ?? '' },
      });
      return { status: response.status, text: await response.text() };
    },
    [`/api/v1${path}`, body === undefined ? undefined : JSON.stringify(body), randomUUID()] as const,
  );
  if (reply.status !== 200) throw new Error(`${path} ${reply.status} ${reply.text}`);
  return JSON.parse(reply.text) as T;
};
export const get = <T>(page: Page, path: string): Promise<T> => ask<T>(page, path);
export const post = <T>(page: Page, path: string, data: unknown): Promise<T> => ask<T>(page, path, data);
