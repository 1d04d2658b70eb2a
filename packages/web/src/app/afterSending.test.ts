import { QueryClient } from '@tanstack/react-query';
import type { EndpointId } from '@zabrik/contract';
import { beforeEach, describe, expect, it } from 'vitest';
import { takeAnswer } from './afterSending.ts';
import type { Waiting } from './outbox.ts';

let client: QueryClient;
beforeEach(() => {
  client = new QueryClient();
});
const sent = (endpoint: EndpointId, about: string, key = 'k1'): Waiting => ({
  key,
  madeAt: 0,
  endpoint,
  params: {},
  body: {},
  about,
  says: '',
  tries: 0,
});
const stale = (key: readonly string[]): boolean | undefined => client.getQueryState(key)?.isInvalidated;

describe('what the server answered to a command of the outbox', () => {
  it('adds a weighing once, however often it is told of it', () => {
    client.setQueryData(['breakdowns', 'one', 'b'], { weighings: [], events: [] });
    const w = sent('bench.weigh', 'b');
    takeAnswer(client, w, { id: 'k1', massMg: 88_000 });
    takeAnswer(client, w, { id: 'k1', massMg: 88_000 });
    expect(client.getQueryData(['breakdowns', 'one', 'b'])).toEqual({
      weighings: [{ id: 'k1', massMg: 88_000 }],
      events: [],
    });
    expect(stale(['breakdowns', 'one', 'b'])).toBe(true);
  });

  it('adds what was said at the bench, at the ruler and at the stove to what was said before', () => {
    for (const [kind, id, endpoint] of [
      ['breakdowns', 'b', 'bench.event'],
      ['cuttings', 'c', 'cutting.event'],
      ['batches', 'r', 'pots.event'],
    ] as const) {
      client.setQueryData([kind, 'one', id], { weighings: [], events: [{ id: 'k0' }] });
      takeAnswer(client, sent(endpoint, id), { id: 'k1' });
      expect(client.getQueryData([kind, 'one', id])).toMatchObject({ events: [{ id: 'k0' }, { id: 'k1' }] });
    }
  });

  it('tells the bells when a timer was set or stopped', () => {
    client.setQueryData(['batches', 'timers'], { timers: [] });
    client.setQueryData(['batches', 'one', 'r'], { events: [] });
    takeAnswer(client, sent('pots.event', 'r'), { id: 'k1' });
    expect(stale(['batches', 'timers'])).toBe(true);
  });

  it('lets a finished batch be done at once, without losing what only the whole of it holds', () => {
    client.setQueryData(['batches', 'one', 'r'], {
      id: 'r',
      state: 'on',
      events: [{ id: 'e' }],
      recipe: { id: 'fumet' },
    });
    client.setQueryData(['lots', 'list'], []);
    takeAnswer(client, sent('pots.finish', 'r'), { id: 'r', state: 'done', outputMg: 1 });
    expect(client.getQueryData(['batches', 'one', 'r'])).toEqual({
      id: 'r',
      state: 'done',
      outputMg: 1,
      events: [{ id: 'e' }],
      recipe: { id: 'fumet' },
    });
    expect(stale(['lots', 'list'])).toBe(true);
  });

  it('puts a log that was begun here among the open ones, and its readings in its place', () => {
    client.setQueryData(['coolings', 'list'], { open: [{ id: 'a', readings: [1] }], closed: [] });
    takeAnswer(client, sent('pots.startCooling', 'b'), { id: 'b', readings: [1] });
    takeAnswer(client, sent('pots.readCooling', 'a'), { id: 'a', readings: [1, 2] });
    expect(client.getQueryData(['coolings', 'list'])).toEqual({
      open: [
        { id: 'a', readings: [1, 2] },
        { id: 'b', readings: [1] },
      ],
      closed: [],
    });
  });

  it('makes up nothing of what this device has never read', () => {
    takeAnswer(client, sent('pots.startCooling', 'b'), { id: 'b' });
    takeAnswer(client, sent('pots.finish', 'r'), { id: 'r' });
    takeAnswer(client, sent('bench.weigh', 'b'), { id: 'k1' });
    for (const key of [
      ['coolings', 'list'],
      ['batches', 'one', 'r'],
      ['breakdowns', 'one', 'b'],
    ])
      expect(client.getQueryData(key)).toBeUndefined();
  });
});
