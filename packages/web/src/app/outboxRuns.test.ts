import 'fake-indexeddb/auto';
import { seededRandom } from '@zabrik/core/simulator';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { outboxRun } from './outboxRuns.ts';

const realTimeout = globalThis.setTimeout;
const realFetch = globalThis.fetch;

beforeEach(() => {
  // a minute of retrying in a second
  vi.stubGlobal('setTimeout', (work: () => void, ms = 0) => realTimeout(work, ms / 200));
});
afterEach(() => {
  vi.unstubAllGlobals();
  globalThis.fetch = realFetch;
});

const FROM = Number(process.env['OUTBOX_FROM'] ?? 0);

describe('the outbox over a network that fails in every way', () => {
  // npm run bench does a thousand
  it.each(Array.from({ length: Number(process.env['OUTBOX_RUNS'] ?? 40) }, (_, i) => i + FROM))(
    'loses nothing, doubles nothing and keeps the order, run %i',
    async (i) => {
      vi.stubGlobal('indexedDB', new IDBFactory());
      const result = await outboxRun({
        random: seededRandom(`outbox ${i}`),
        commands: 20,
        open: () => {
          vi.resetModules();
          return import('./outbox.ts');
        },
        sleep: (ms) => new Promise((done) => realTimeout(done, ms)),
        patienceMs: 15_000,
      });
      expect(result.applied).toEqual(result.kept);
    },
    20_000,
  );
});
