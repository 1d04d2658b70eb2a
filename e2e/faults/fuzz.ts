/** Requests made from the contract's own shapes, with what no cook would send in one place or two. */
import { randomUUID } from 'node:crypto';
import type { Endpoint } from '@zabrik/contract';
import { allEndpoints } from '@zabrik/contract/openapi';
import { seededRandom } from '@zabrik/core/simulator';
import { z } from 'zod';
import { type KitchenProcess, NEVER_MS, type Session, signInOver } from '../kitchenProcess.ts';
import { watchStalls } from './stalls.ts';
import type { Counts } from './table.ts';

type Random = ReturnType<typeof seededRandom>;
interface Shape {
  readonly type?: string;
  readonly enum?: readonly unknown[];
  readonly const?: unknown;
  readonly anyOf?: readonly Shape[];
  readonly oneOf?: readonly Shape[];
  readonly allOf?: readonly Shape[];
  readonly properties?: Readonly<Record<string, Shape>>;
  readonly required?: readonly string[];
  readonly items?: Shape;
  readonly prefixItems?: readonly Shape[];
  readonly format?: string;
  readonly minimum?: number;
  readonly maximum?: number;
  readonly minItems?: number;
  readonly additionalProperties?: Shape | boolean;
  readonly $ref?: string;
}

const deep = (n: number): unknown => {
  let value: unknown = 1;
  for (let i = 0; i < n; i += 1) value = i % 2 === 0 ? [value] : { a: value };
  return value;
};
const nasty: readonly ((random: Random) => unknown)[] = [
  () => 'a\0b',
  () => '\ud83d',
  () => 'x\udc00y',
  () => '\u202eevil\u202c',
  () => '\u200b\u2060\ufeff',
  () => '0000-01-01T00:00:00.000Z',
  () => '+275760-09-13T00:00:00.000Z',
  () => '0000-00-00',
  () => '2026-02-30',
  () => '',
  () => ' ',
  () => 'x'.repeat(5_000),
  () => '=1+1|cmd',
  () => "'; drop table lot; --",
  () => '%00',
  () => '../../etc/passwd',
  () => null,
  () => true,
  () => -1,
  () => 0,
  () => 1e308,
  () => -1e15,
  () => 0.1,
  () => Number.MAX_SAFE_INTEGER,
  () => 4_294_967_296,
  () => 99_999_999_999,
  () => [],
  () => ({}),
  () => ({ __proto__: 1, constructor: 1 }),
  () => deep(200),
  (random) => Array.from({ length: random.whole(1, 300) }, () => randomUUID()),
  () => randomUUID(),
  () => 'Ω'.repeat(130),
  () => '🐟'.repeat(60),
  () => Buffer.from('{"at":"0000-01-01T00:00:00Z","id":"x"}').toString('base64url'),
  () => Buffer.from('[1,2').toString('base64'),
];
const pick = <T>(random: Random, of: readonly T[]): T => of[random.whole(0, of.length - 1)] as T;

/** Something that fits a shape, with ids that are there where there are some. */
function fits(shape: Shape, random: Random, ids: readonly string[], depth = 0): unknown {
  if (shape.const !== undefined) return shape.const;
  if (shape.enum !== undefined) return pick(random, shape.enum);
  const one = shape.anyOf ?? shape.oneOf;
  if (one !== undefined) return fits(pick(random, one), random, ids, depth + 1);
  if (shape.allOf !== undefined && shape.allOf[0] !== undefined) return fits(shape.allOf[0], random, ids, depth + 1);
  switch (shape.type) {
    case 'string':
      if (shape.format === 'uuid') return random.next() < 0.7 ? pick(random, ids) : randomUUID();
      if (shape.format === 'date-time') return new Date(Date.now() - random.whole(0, 3_600_000)).toISOString();
      if (shape.format === 'date') return '2026-11-28';
      return pick(random, [
        'x',
        'hake',
        'gutted',
        'fish-fumet',
        'round-fish-two-fillets',
        'freezer',
        'stock',
        'squid-cleaned',
        'main',
      ]);
    case 'integer':
    case 'number': {
      const low = shape.minimum ?? 0;
      const high = Math.min(shape.maximum ?? 10_000, low + pick(random, [1, 10, 5_000, 5_000_000]));
      return random.whole(Math.ceil(Math.max(low, -1e12)), Math.floor(Math.max(low, high)));
    }
    case 'boolean':
      return random.next() < 0.5;
    case 'null':
      return null;
    case 'array':
      return Array.from({ length: Math.max(shape.minItems ?? 0, depth > 6 ? 0 : random.whole(0, 2)) }, (_, i) =>
        fits(shape.prefixItems?.[i] ?? shape.items ?? {}, random, ids, depth + 1),
      );
    case 'object': {
      const required = new Set(shape.required ?? []);
      return Object.fromEntries(
        Object.entries(shape.properties ?? {})
          .filter(([name]) => required.has(name) || random.next() < 0.5)
          .map(([name, inner]) => [name, fits(inner, random, ids, depth + 1)]),
      );
    }
    default:
      return 'x';
  }
}

/** The same with something else in one place. */
function spoil(value: unknown, random: Random): unknown {
  if (typeof value !== 'object' || value === null || random.next() < 0.25) return pick(random, nasty)(random);
  const entries = Object.entries(value);
  if (entries.length === 0) return pick(random, nasty)(random);
  const [name, inner] = pick(random, entries);
  if (Array.isArray(value)) return value.map((v, i) => (String(i) === name ? spoil(inner, random) : v));
  const what = random.next();
  if (what < 0.06) return { ...value, [pick(random, ['__proto__', 'surprise', 'a\0b', ''])]: 1 };
  if (what < 0.1) return Object.fromEntries(entries.filter(([n]) => n !== name));
  return { ...value, [name]: spoil(inner, random) };
}

/** Would end the work of the others, and is tried by itself in the tests of access. */
// and no address that is made up is called: nothing here leaves the machine
const left = new Set([
  'access.signOut',
  'access.signOutPerson',
  'access.signIn',
  'access.stillHere',
  'programs.addHook',
]);

const shapeOf = (schema: z.ZodType | undefined): Shape | undefined =>
  schema === undefined ? undefined : (z.toJSONSchema(schema, { unrepresentable: 'any', io: 'input' }) as Shape);

export interface FuzzOptions {
  readonly untilMs: number;
  readonly most?: number;
  readonly seed: string;
  readonly atOnce?: number;
}

export async function fuzz(
  kitchen: KitchenProcess,
  { untilMs, most = Number.POSITIVE_INFINITY, seed, atOnce = 12 }: FuzzOptions,
): Promise<Counts> {
  const random = seededRandom(seed);
  const sessions: Session[] = [];
  for (const name of ['Maren Ostle', 'Tobin Arkwell', 'Ines Calloway', 'Wren Haldane'])
    sessions.push(await signInOver(kitchen.base, name));
  const [chef] = sessions as [Session];
  const ids: string[] = [];
  const gather = (value: unknown): void => {
    if (typeof value === 'string' && /^[0-9a-f]{8}-[0-9a-f-]{27}$/.test(value)) ids.push(value);
    else if (typeof value === 'object' && value !== null) for (const inner of Object.values(value)) gather(inner);
  };
  for (const path of [
    '/lots?limit=100',
    '/breakdowns',
    '/batches',
    '/deliveries?limit=30',
    '/cuttings',
    '/orders',
    '/ledger/breakdowns?limit=30',
    '/coolings',
    '/suppliers',
    '/session',
  ])
    gather(await chef.get(`/api/v1${path}`).catch(() => null));
  const shapes = allEndpoints
    .filter((e) => !left.has(e.id))
    .map((e: Endpoint) => ({ e, params: shapeOf(e.params), query: shapeOf(e.query), body: shapeOf(e.body) }));
  const stalls = watchStalls(() => kitchen.base);
  const seen = { requests: 0, accepted: 0, broke: 0, hung: 0, longestMs: 0 };
  const broken = new Map<string, string>();
  const unanswered: string[] = [];
  const text = (value: unknown): string => (typeof value === 'string' ? value : JSON.stringify(value ?? ''));
  const one = async (): Promise<void> => {
    const { e, params, query, body } = pick(random, shapes);
    const maybe = (value: unknown): unknown => (random.next() < 0.55 ? spoil(value, random) : value);
    const inPath = params === undefined ? {} : (fits(params, random, ids) as Record<string, unknown>);
    if (random.next() < 0.15) for (const name of Object.keys(inPath)) inPath[name] = pick(random, nasty)(random);
    const path = e.path.replace(/:(\w+)/g, (_, name: string) => {
      try {
        return encodeURIComponent(text(inPath[name]).slice(0, 300)) || 'x';
      } catch {
        return '%FF%00'; // half a character: sent as bytes that are none
      }
    });
    let search = '';
    if (query !== undefined) {
      const asked = maybe(fits(query, random, ids));
      if (typeof asked === 'object' && asked !== null)
        search = `?${new URLSearchParams(Object.entries(asked).map(([k, v]): [string, string] => [k, text(v).slice(0, 3_000)])).toString()}`;
    }
    let sent: string | undefined;
    if (body !== undefined) {
      sent = JSON.stringify(maybe(fits(body, random, ids)));
      const way = random.next();
      if (way < 0.01) sent = sent?.slice(0, Math.floor(sent.length / 2));
      else if (way < 0.012) sent = JSON.stringify({ x: 'y'.repeat(10_000_000) });
      else if (way < 0.014) sent = JSON.stringify(deep(4_000));
    }
    const session = pick(random, sessions);
    seen.requests += 1;
    let status = 0;
    let said = '';
    const began = performance.now();
    try {
      const reply = await fetch(`${kitchen.base}/api/v1${path}${search}`, {
        method: e.method.toUpperCase(),
        headers: {
          origin: kitchen.base,
          cookie: session.cookie,
          ...(random.next() < 0.97 ? { 'idempotency-key': randomUUID() } : { 'idempotency-key': 'x\u00ff' }),
          ...(sent === undefined ? {} : { 'content-type': random.next() < 0.98 ? 'application/json' : 'text/plain' }),
        },
        ...(sent === undefined ? {} : { body: sent }),
        signal: AbortSignal.timeout(NEVER_MS),
      });
      status = reply.status;
      said = await reply.text();
    } catch (error) {
      // the server may hang up on ten megabytes before it has read them
      if ((error as Error).name === 'TimeoutError') {
        seen.hung += 1;
        unanswered.push(`${e.method} ${path}${search} ${sent?.slice(0, 600) ?? ''} (status ${status})`);
      }
    }
    seen.longestMs = Math.max(seen.longestMs, Math.round(performance.now() - began));
    if (status >= 200 && status < 300) seen.accepted += 1;
    if (status === 500) {
      seen.broke += 1;
      if (broken.size < 40 && !broken.has(e.id))
        broken.set(e.id, `${e.method} ${path}${search} ${sent?.slice(0, 600) ?? ''} -> ${said.slice(0, 300)}`);
    }
  };
  await Promise.all(
    Array.from({ length: atOnce }, async () => {
      while (Date.now() < untilMs && seen.requests < most) await one();
    }),
  );
  for (const line of broken.values()) process.stdout.write(`  status 500: ${line}\n`);
  for (const line of unanswered.slice(0, 40)) process.stdout.write(`  no answer: ${line}\n`);
  return { ...seen, stallMs: await stalls.stop() };
}
