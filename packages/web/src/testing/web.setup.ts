/** For every test of the web client: a slow machine is no fault, and nothing goes on once a file is through. */
import { configure } from '@testing-library/react';
import { afterAll } from 'vitest';

// an event is waited for, not a time: this only ends what never comes
configure({ asyncUtilTimeout: 60_000 });

// jsdom has none, and lays nothing out that it could watch
globalThis.ResizeObserver ??= class {
  observe(): void {}
  unobserve(): void {}
  disconnect(): void {}
};
Element.prototype.scrollIntoView ??= (): void => undefined;

// what the outbox would try again later finds no browser any more
const begun = new Set<ReturnType<typeof setTimeout>>();
const begin = globalThis.setTimeout;
globalThis.setTimeout = Object.assign((...args: Parameters<typeof begin>) => {
  const timer = begin(...args);
  begun.add(timer);
  return timer;
}, begin) as typeof setTimeout;
const stop = (): void => {
  for (const timer of begun) clearTimeout(timer);
};
afterAll(async () => {
  stop();
  // what it is in the middle of ends while there still is one: all of it is in this process, a few turns of its loop away
  for (let turn = 0; turn < 50; turn += 1) await new Promise((done) => setImmediate(done));
  stop();
});
