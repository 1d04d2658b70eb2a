import { z } from 'zod';
import { endpoint, type Route } from '../endpoint.ts';
import { id, instant, newName, nothing, shortText } from '../fields.ts';
import { webAddress } from '../webAddress.ts';
import { pin } from './access.ts';

/** What a token may do: read what its person reads, or give that person's commands as well. */
export const tokenScopes = ['read', 'work'] as const;
export type TokenScope = (typeof tokenScopes)[number];

/** What a program of somebody else's is told of by itself. */
export const hookTopics = ['movement', 'used-up'] as const;
export type HookTopic = (typeof hookTopics)[number];

/** A token holds for a year at most. */
export const MOST_TOKEN_DAYS = 366;

/** What is done at the door and to people is done by people: no program signs in, gives a PIN, makes a token or says where else to call. A weight is somebody's who stands at the pan. */
const PEOPLE_ALONE: ReadonlySet<string> = new Set([
  'house.addPerson',
  'house.changePerson',
  'house.leave',
  'house.setPin',
  'bench.weigh',
]);
const STATIONS_OF_PEOPLE = ['access.', 'programs.', 'simulation.'];

/** Whether a token of this scope may be used for it at all; its person's role is asked besides. */
export const tokenMay = (scope: TokenScope, { id: of, method }: Pick<Route, 'id' | 'method'>): boolean =>
  !STATIONS_OF_PEOPLE.some((s) => of.startsWith(s)) && !PEOPLE_ALONE.has(of) && (scope === 'work' || method === 'get');

export const tokenSchema = z.strictObject({
  id,
  name: shortText,
  scope: z.enum(tokenScopes),
  by: shortText.describe('whose it is: it may do what their role may, no more'),
  mine: z.boolean(),
  madeAt: instant,
  until: instant,
  usedAt: instant.nullable().describe('to the minute'),
  endedAt: instant.nullable(),
});
export type Token = z.output<typeof tokenSchema>;

export const hookSchema = z.strictObject({
  id,
  name: shortText,
  url: z.string(),
  topics: z.array(z.enum(hookTopics)).readonly(),
  by: shortText,
  madeAt: instant,
  waiting: z.int().describe('calls that did not get through yet, and are tried again'),
  givenUp: z.int().describe('calls that never got through, of the last week'),
  lastOkAt: instant.nullable(),
  lastWhy: z.string().nullable().describe('what came of the last try that failed, since the last that did not'),
});
export type Hook = z.output<typeof hookSchema>;

const posting = z.strictObject({
  lot: z.string().nullable().describe('its code; null where it is a sink'),
  name: z.string().nullable(),
  sink: z.string().nullable(),
  reason: z.string().nullable(),
  massMg: z.int(),
  costMinor: z.int(),
});
/** The body of a call: what a program is told. */
export const hookCallSchema = z.discriminatedUnion('topic', [
  z.strictObject({
    topic: z.literal('movement'),
    house: z.string(),
    at: instant,
    movement: id,
    kind: z.string(),
    by: z.string(),
    reverses: id.nullable(),
    note: z.string().nullable(),
    currency: z.string(),
    postings: z.array(posting).readonly(),
  }),
  z.strictObject({
    topic: z.literal('used-up'),
    house: z.string(),
    at: instant,
    movement: id,
    lot: z.string(),
    name: z.string(),
    species: z.string().nullable(),
    category: z.string().nullable(),
  }),
  z.strictObject({ topic: z.literal('try'), house: z.string(), at: instant }),
]);
export type HookCall = z.output<typeof hookCallSchema>;

export const programs = {
  tokens: endpoint({
    id: 'programs.tokens',
    method: 'get',
    path: '/tokens',
    command: false,
    may: 'chefs',
    summary: 'One’s own tokens; for the head chef everybody’s',
    answer: z.strictObject({ tokens: z.array(tokenSchema) }),
  }),
  makeToken: endpoint({
    id: 'programs.makeToken',
    method: 'post',
    path: '/tokens',
    command: false,
    may: 'chefs',
    summary: 'A token for a program, by one’s own PIN: shown once',
    body: z.strictObject({
      name: newName,
      scope: z.enum(tokenScopes),
      days: z.int().min(1).max(MOST_TOKEN_DAYS),
      pin,
    }),
    answer: z.strictObject({ token: z.string(), made: tokenSchema }),
  }),
  endToken: endpoint({
    id: 'programs.endToken',
    method: 'delete',
    path: '/tokens/:tokenId',
    command: false,
    may: 'chefs',
    summary: 'Takes a token back: it opens nothing from now on',
    params: z.strictObject({ tokenId: id }),
    answer: nothing,
  }),
  hooks: endpoint({
    id: 'programs.hooks',
    method: 'get',
    path: '/webhooks',
    command: false,
    may: 'head-chef',
    summary: 'Whom the house calls by itself, and how that goes',
    answer: z.strictObject({ hooks: z.array(hookSchema) }),
  }),
  addHook: endpoint({
    id: 'programs.addHook',
    method: 'post',
    path: '/webhooks',
    command: false,
    may: 'head-chef',
    summary:
      'An address to be called when something moves or is used up; the secret that signs the calls is shown once',
    body: z.strictObject({ name: newName, url: webAddress, topics: z.array(z.enum(hookTopics)).min(1).max(2) }),
    answer: z.strictObject({ secret: z.string(), made: hookSchema }),
  }),
  endHook: endpoint({
    id: 'programs.endHook',
    method: 'delete',
    path: '/webhooks/:hookId',
    command: false,
    may: 'head-chef',
    summary: 'Calls it no more; what waits is not sent',
    params: z.strictObject({ hookId: id }),
    answer: nothing,
  }),
  tryHook: endpoint({
    id: 'programs.tryHook',
    method: 'post',
    path: '/webhooks/:hookId/try',
    command: false,
    may: 'head-chef',
    summary: 'Calls it once now, to see whether it answers',
    params: z.strictObject({ hookId: id }),
    answer: z.strictObject({ ok: z.boolean(), why: z.string().nullable() }),
  }),
} as const;
