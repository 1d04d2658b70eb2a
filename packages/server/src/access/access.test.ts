import { get } from 'node:http';
import {
  allowed,
  api,
  type Endpoint,
  type EndpointId,
  noTerms,
  permissions,
  roles,
  usualIdleMinutes,
} from '@zabrik/contract';
import { allEndpoints, openApiDocument } from '@zabrik/contract/openapi';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { select } from '../db/select.ts';
import { openTestKitchen, PIN, pathOf, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { closedHake, must, smallestPng, startHake, takeBody } from '../testing/work.ts';

let kitchen: TestKitchen;
beforeAll(async () => {
  kitchen = await openTestKitchen();
});
afterAll(() => kitchen.stop());

const nobody = (): Tablet => kitchen.tablet('');
const people = {
  butcher: 'Ines Calloway',
  'sous-chef': 'Tobin Arkwell',
  'head-chef': 'Maren Ostle',
  viewer: 'Wren Haldane',
} as const;
/** Some id for each parameter of an address; what is no id has a name that could be one. */
const named: Readonly<Record<string, string>> = {
  slug: 'home',
  planId: 'loin-steaks',
  recipeId: 'fish-fumet',
  job: '9',
};
const anyParams = (e: Endpoint): Record<string, string> =>
  Object.fromEntries([...e.path.matchAll(/:(\w+)/g)].map(([, name = '']) => [name, named[name] ?? uuidv7()]));
// a weighing is read before its session is: it needs a body that can be read to get as far as the role
const bodyOf = (e: Endpoint): unknown =>
  e.id === 'bench.weigh' ? takeBody('head', 'stock', 500) : e.method === 'post' ? {} : undefined;
const send = (tablet: Tablet, e: Endpoint, params = anyParams(e)) =>
  tablet.raw(e.method, pathOf(e, params), bodyOf(e), { 'idempotency-key': uuidv7() });

describe('signing in', () => {
  it('shows the people of a house and never a secret', async () => {
    const { body } = await nobody().ask(api.access.signInOptions, { params: { slug: 'home' } });
    expect(body.people.map((p) => p.name)).toContain('Ines Calloway');
    expect(JSON.stringify(body)).not.toContain('argon2');
    expect(JSON.stringify(body)).not.toContain(PIN);
  });

  it('gives a cookie that scripts cannot read and other sites cannot send', async () => {
    const reply = await nobody().raw('post', '/api/v1/session', {
      personId: kitchen.personOf('Jory Pellam'),
      pin: PIN,
    });
    const cookie = reply.headers.get('set-cookie') ?? '';
    expect(cookie).toMatch(/HttpOnly/);
    expect(cookie).toMatch(/SameSite=Strict/);
  });

  it('takes a password where there is one, and ends a session for good', async () => {
    const personId = kitchen.personOf('Maren Ostle');
    const reply = await nobody().raw('post', '/api/v1/session', { personId, password: 'home-office' });
    expect(reply.status).toBe(200);
    expect(
      (
        await nobody().raw('post', '/api/v1/session', {
          personId: kitchen.personOf('Jory Pellam'),
          password: 'home-office',
        })
      ).status,
    ).toBe(401);
    const tablet = await kitchen.signIn(personId);
    expect((await tablet.ask(api.access.signOut, {})).status).toBe(200);
    expect((await tablet.ask(api.access.me, {})).status).toBe(401);
  });

  it('counts wrong PINs down, pauses at five, says until when, and opens again', async () => {
    const personId = kitchen.personOf('Wren Haldane');
    const start = new Date('2026-11-24T09:00:00Z');
    kitchen.setClock(start);
    const attempt = (pin: string) => nobody().raw('post', '/api/v1/session', { personId, pin });
    for (let left = 4; left >= 1; left -= 1) {
      const { status, body } = await attempt('0000');
      expect(status).toBe(401);
      expect(body['detail']).toContain(`${left} ${left === 1 ? 'try' : 'tries'} left`);
    }
    expect(await attempt('0000')).toMatchObject({
      status: 429,
      body: { code: 'locked_out', detail: expect.stringContaining('09:05') },
    });
    expect((await attempt(PIN)).status).toBe(429); // the right one does not help while it is locked
    kitchen.setClock(new Date(start.getTime() + 5 * 60_000 + 1));
    expect((await attempt(PIN)).status).toBe(200);
    kitchen.setClock(undefined);
  });

  it('lets an address try sixty times a minute, whichever server process it asks', async () => {
    const first = await openTestKitchen();
    const second = await openTestKitchen({ databaseUrl: first.databaseUrl });
    const attempt = (at: TestKitchen) => at.tablet('').raw('post', '/api/v1/session', { personId: uuidv7(), pin: PIN });
    const seen: number[] = [];
    for (let n = 0; n < 60; n += 1) seen.push((await attempt(n % 2 === 0 ? first : second)).status);
    expect(new Set(seen)).toEqual(new Set([401]));
    for (const at of [first, second]) {
      const { status, body, headers } = await attempt(at);
      expect({ status, code: body['code'] }).toEqual({ status: 429, code: 'too_many' });
      expect(Number(headers.get('retry-after'))).toBeGreaterThan(0);
    }
    await second.stop();
    await first.stop();
  });

  it('answers an unknown person like a wrong PIN', async () => {
    expect((await nobody().raw('post', '/api/v1/session', { personId: uuidv7(), pin: PIN })).status).toBe(401);
  });
});

describe('a session', () => {
  const sessions = (personId: string) =>
    select<{ sid: string; minutes: number }>(
      kitchen.services.db,
      `select sid, (extract(epoch from expire - now()) / 60)::float8 as minutes from session where sess->'who'->>'personId' = $1 order by expire desc`,
      [personId],
    );
  const minutesLeft = async (personId: string) => (await sessions(personId))[0]?.minutes ?? 0;

  it('lasts as long untouched as the role may, goes on while somebody is there, and ends with the shift', async () => {
    for (const [role, name] of Object.entries(people)) {
      const personId = kitchen.personOf(name);
      const tablet = await kitchen.signIn(personId);
      const idle = usualIdleMinutes[role as keyof typeof people];
      expect(Math.abs((await minutesLeft(personId)) - idle), role).toBeLessThan(2);
      // most of it has gone by
      await kitchen.services.db.query(
        `update session set expire = now() + interval '1 minute' where sess->'who'->>'personId' = $1`,
        { bind: [personId] },
      );
      await must(tablet, api.access.stillHere, {});
      expect(Math.abs((await minutesLeft(personId)) - idle), role).toBeLessThan(2);
      // thirteen hours and fifty minutes of the shift
      await kitchen.services.db.query(
        `update session set sess = jsonb_set(sess::jsonb, '{since}', to_jsonb((extract(epoch from now()) * 1000 - 830 * 60000)::bigint))::json where sess->'who'->>'personId' = $1`,
        { bind: [personId] },
      );
      await must(tablet, api.access.stillHere, {});
      expect(await minutesLeft(personId), role).toBeLessThan(10.5);
      await kitchen.services.db.query(
        `update session set expire = now() - interval '1 second' where sess->'who'->>'personId' = $1`,
        { bind: [personId] },
      );
      expect((await tablet.ask(api.access.me, {})).status, role).toBe(401);
      expect((await tablet.ask(api.access.stillHere, {})).status, role).toBe(401);
    }
  });

  it('lasts untouched as long as the house has said, from the next time somebody is there', async () => {
    const ines = kitchen.personOf('Ines Calloway');
    const maren = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
    const tablet = await kitchen.signIn(ines);
    const { version, idleMinutes } = await must(maren, api.house.read, {});
    expect(idleMinutes).toEqual(usualIdleMinutes);
    const said = { ...idleMinutes, butcher: 25 };
    await must(maren, api.house.saveSettings, { body: { version, settings: { idleMinutes: said } } });
    await must(tablet, api.access.stillHere, {});
    const left = (await sessions(ines)).map(({ minutes }) => minutes);
    expect(left.map(Math.round)).toContain(25);
    await kitchen.signIn(ines);
    expect((await sessions(ines)).filter(({ minutes }) => Math.abs(minutes - 25) < 2)).toHaveLength(2);
    for (const minutes of [4, 841, 30.5])
      expect(
        await maren.ask(api.house.saveSettings, {
          body: { version: version + 1, settings: { idleMinutes: { ...said, viewer: minutes } } },
        }),
      ).toMatchObject({ status: 400 });
    await must(maren, api.house.saveSettings, { body: { version: version + 1, settings: { idleMinutes } } });
  });

  it('is ended everywhere by its person, and by the head chef; nobody else sees it or ends it', async () => {
    const jory = kitchen.personOf('Jory Pellam');
    const [here, there] = [await kitchen.signIn(jory), await kitchen.signIn(jory)];
    const ines = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
    const maren = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
    const seen = async (tablet: Tablet) => (await must(tablet, api.access.signedIn, {})).sessions;
    expect((await seen(here)).map((s) => [s.person.name, s.here])).toEqual(
      expect.arrayContaining([
        ['Jory Pellam', true],
        ['Jory Pellam', false],
      ]),
    );
    expect((await seen(ines)).every((s) => s.person.name === 'Ines Calloway')).toBe(true);
    expect(new Set((await seen(maren)).map((s) => s.person.name)).size).toBeGreaterThan(2);
    expect(await ines.ask(api.access.signOutPerson, { params: { personId: jory } })).toMatchObject({ status: 403 });
    expect((await here.ask(api.access.me, {})).status).toBe(200);
    const { ended } = await must(here, api.access.signOutPerson, { params: { personId: jory } });
    expect(ended).toBeGreaterThanOrEqual(2);
    for (const tablet of [here, there]) expect((await tablet.ask(api.access.me, {})).status).toBe(401);
    expect((await ines.ask(api.access.me, {})).status).toBe(200);
    await must(maren, api.access.signOutPerson, { params: { personId: kitchen.personOf('Ines Calloway') } });
    expect((await ines.ask(api.access.me, {})).status).toBe(401);
  });
});

describe('the table of roles', () => {
  it('names every endpoint, and every endpoint stands in the document', () => {
    expect(allEndpoints.map((e) => e.id).sort()).toEqual([...allowed.keys()].sort());
    expect(openApiDocument.openapi).toBe('3.1.0');
    const operations = Object.values(openApiDocument.paths ?? {}).flatMap((path) =>
      Object.values(path ?? {}).flatMap((o) => (o as { operationId?: string }).operationId ?? []),
    );
    expect(operations.sort()).toEqual([...allowed.keys()].sort());
  });

  it.each(allEndpoints.map((e) => [e.id, e] as const))('%s: nobody without signing in', async (id, e) => {
    const { status } = await send(nobody(), e);
    if (permissions(id as EndpointId) === 'open') expect([200, 400]).toContain(status);
    else expect(status).toBe(401);
  });

  it.each(roles)('%s may do what the table says and nothing else', async (role) => {
    const tablet = await kitchen.signIn(kitchen.personOf(people[role]));
    for (const e of allEndpoints.filter((x) => x.id !== 'access.signOut' && x.id !== 'access.signIn')) {
      const actor = permissions(e.id as EndpointId);
      const { status } = await send(tablet, e);
      if (actor === 'open' || actor.includes(role)) expect(status, e.id).not.toBe(403);
      else expect(status, e.id).toBe(403);
    }
  });
});

describe('who else may not come in', () => {
  it('refuses a command from another page, and one that hides where it comes from', async () => {
    const tablet = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
    const path = pathOf(api.receive.accept, {});
    expect(await tablet.raw('post', path, {}, { origin: 'http://elsewhere.invalid' })).toMatchObject({
      status: 403,
      body: { code: 'other_origin' },
    });
    expect(await tablet.raw('post', path, {}, { origin: 'null' })).toMatchObject({ status: 403 });
    expect(
      await tablet.raw('delete', '/api/v1/session', undefined, { origin: 'http://elsewhere.invalid' }),
    ).toMatchObject({ status: 403 });
  });

  it('answers 404 to another house’s ids, on every route that takes one, and changes nothing', async () => {
    const ours = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
    const theirs = await kitchen.signIn(kitchen.personOf('Maren Ostle', kitchen.other));
    const { delivery, breakdown, closed } = await closedHake(kitchen, ours);
    const open = await startHake(kitchen, ours);
    const frame = closed.lots.find((l) => l.name.includes('frame'));
    const planned = await must(ours, api.pots.plan, {
      body: { recipeId: 'fish-fumet', lotIds: [frame?.lotId ?? ''], vesselId: null, onHandMg: {} },
    });
    const bodies: Readonly<Record<string, unknown>> = {
      'house.changePerson': { name: 'x', role: 'viewer', hourlyMinor: null, version: 1 },
      'house.leave': { left: true, version: 1 },
      'house.setPin': { pin: '80461' },
      'bench.weigh': takeBody('head', 'stock', 500),
      'bench.close': { unbalancedReason: 'no' },
      'bench.cancel': {},
      'bench.event': { kind: 'pause', at: '2026-11-24T10:00:00.000Z' },
      'bench.reopen': { reason: 'no' },
      'bench.retirePlan': { retired: true },
      'cutting.event': { at: '2026-11-25T10:00:00.000Z', body: { kind: 'back', eventId: uuidv7() } },
      'cutting.close': { leftMg: 0, unbalancedReason: 'no' },
      'cutting.cancel': {},
      'receive.close': {},
      'receive.saveSupplier': { version: 1, name: 'x', retired: false, terms: noTerms },
      'receive.photograph': { base64: 'AAAAAAAAAAAAAAAAAAAAAAAA' },
      'receive.callOff': {},
      'receive.undoPrices': {},
      'larder.keep': { kind: 'reserve', reservedFor: 'x' },
      'larder.undoKeep': {},
      'larder.split': { massMg: 1, pieces: null },
      'larder.trim': { massMg: null, readyMg: 1, keptMg: 0, keptTo: null, note: null },
      'larder.fill': { from: [{ lotId: delivery.lotId, massMg: null }] },
      'larder.takeOut': { massMg: 1, to: 'served', reason: null, note: null },
      'pots.finish': { outputMg: 1, spentMg: 0, note: null },
      'pots.event': { at: '2026-11-25T10:00:00.000Z', body: { kind: 'start' } },
      'pots.readCooling': { at: '2026-11-25T10:00:00.000Z', centiC: 5_700, source: 'typed' },
      'pots.closeCooling': { outcome: 'no' },
      'pots.cancel': {},
      'ledger.reverse': { reason: 'no' },
    };
    const { plan } = await must(ours, api.bench.plan, { params: { planId: 'squid-cleaned' } });
    await must(ours, api.bench.savePlan, { body: { plan: { ...plan, id: 'only-ours' }, basedOn: 0 } });
    await must(ours, api.bench.retirePlan, { params: { planId: 'only-ours' }, body: { retired: false } });
    const supplierId = kitchen.home?.suppliers.get('Bram Quay Fish') ?? '';
    const order = await must(ours, api.receive.order, {
      body: {
        supplierId,
        dueOn: '2026-12-01',
        note: null,
        lines: [{ species: 'hake', form: 'gutted', goods: null, count: 1, massMg: 2_000_000, minorPerKg: null }],
      },
    });
    const listId = uuidv7();
    await must(ours, api.receive.sendPrices, {
      body: {
        listId,
        supplierId,
        file: 'x.csv',
        validFrom: '2026-11-24',
        last: true,
        rows: [{ line: 2, item: 'Hake', minorPerKg: 1_100, unit: 'kg' }],
      },
    });
    const reserved = await must(ours, api.larder.keep, {
      params: { lotId: open.delivery.lotId },
      body: { kind: 'reserve', reservedFor: 'Friday' },
    });
    const photograph = await must(ours, api.receive.photograph, {
      params: { lineId: delivery.id },
      body: { base64: smallestPng },
    });
    const cutting = await must(ours, api.cutting.start, {
      body: {
        id: uuidv7(),
        kind: 'portions',
        from: [{ lotId: closed.lots.find((l) => l.name.includes('fillet'))?.lotId ?? '', massMg: null }],
        at: '2026-11-25T10:00:00.000Z',
      },
    });
    const { recipes } = await must(ours, api.pots.recipes, {});
    const recipe = recipes[0]?.recipe;
    if (recipe === undefined) throw new Error('no use');
    await must(ours, api.pots.saveRecipe, {
      body: { recipe: { ...recipe, id: 'only-ours', version: 1 }, from: 0, retired: false, note: 'x' },
    });
    const cooling = await must(ours, api.pots.startCooling, {
      body: {
        id: uuidv7(),
        kind: 'cooling',
        lotId: frame?.lotId ?? null,
        name: 'frames',
        setup: {
          mediumId: 'cold-room-lidded',
          vesselName: '12 l pot',
          vessel: { kind: 'round', diameterMm: 260, heightMm: 230 },
          count: 1,
          litres: 9,
          airC: null,
          setsAtC: null,
        },
        limitId: null,
        at: '2026-11-25T10:00:00.000Z',
        centiC: 6_000,
        source: 'typed',
      },
    });
    const before = await theirs.ask(api.larder.list, { query: {} });
    for (const e of allEndpoints.filter((x) => x.params !== undefined && x.id !== 'access.signInOptions')) {
      for (const breakdownId of [breakdown.id, open.breakdown.id]) {
        const params = {
          breakdownId,
          cuttingId: cutting.id,
          lotId: delivery.lotId,
          batchId: planned.id,
          movementId: closed.movementId,
          planId: 'only-ours',
          deliveryId: delivery.deliveryId,
          lineId: delivery.id,
          orderId: order.id,
          listId,
          eventId: reserved.eventId,
          photographId: photograph.id,
          supplierId,
          recipeId: 'only-ours',
          coolingId: cooling.id,
          personId: kitchen.personOf('Ines Calloway'),
        };
        if (e.id === 'larder.showPrinted') continue; // the printer is the machine's, not a house's
        const reply = await theirs.raw(e.method, pathOf(e, params), bodies[e.id], { 'idempotency-key': uuidv7() });
        expect(reply.status, e.id).toBe(404);
      }
    }
    // ids in bodies are no way round
    for (const [e, body] of [
      [api.bench.start, { lotId: delivery.lotId, planId: 'round-fish-two-fillets', animals: 1, massMg: null }],
      [
        api.cutting.start,
        {
          id: uuidv7(),
          kind: 'portions',
          from: [{ lotId: delivery.lotId, massMg: null }],
          at: '2026-11-25T10:00:00.000Z',
        },
      ],
      [api.bench.goOn, { lots: [{ lotId: delivery.lotId, massMg: null }] }],
      [api.pots.plan, { recipeId: 'fish-fumet', lotIds: [frame?.lotId], vesselId: null, onHandMg: {} }],
      [
        api.receive.accept,
        {
          species: 'hake',
          form: 'gutted',
          animals: 1,
          supplierId: kitchen.home?.suppliers.get('Bram Quay Fish'),
          origin: null,
          grossMg: 9,
          tareMg: 0,
          invoiceMg: 9,
          paidMinor: 9,
          temperatureCentiC: null,
          landedOn: null,
          useBy: null,
          note: null,
        },
      ],
      [api.simulation.pan, { what: 'piece', breakdownId: breakdown.id, pieceId: 'head', unit: 0 }],
    ] as const)
      expect([404, 503], e.id).toContain(
        (await theirs.raw('post', pathOf(e, {}), body, { 'idempotency-key': uuidv7() })).status,
      );
    expect((await theirs.ask(api.larder.list, { query: {} })).body).toEqual(before.body);
  });

  it('tells a program by a tag that nothing is new, and a page never', async () => {
    const ines = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
    // not by fetch: that asks for nothing kept as soon as a tag is given
    const asked = (headers: Record<string, string>): Promise<{ status: number; tag: string | undefined }> =>
      new Promise((resolve, reject) => {
        get(`${kitchen.base}/api/v1/suppliers`, { headers: { cookie: ines.cookie, ...headers } }, (reply) => {
          reply.resume();
          resolve({ status: reply.statusCode ?? 0, tag: reply.headers.etag });
        }).once('error', reject);
      });
    const { tag = '' } = await asked({});
    expect(tag).toMatch(/^"[\w-]{27}"$/);
    expect((await asked({ 'if-none-match': tag })).status).toBe(304);
    const maren = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
    await must(maren, api.receive.addSupplier, { body: { name: 'Tagged Quay' } });
    const anew = await asked({ 'if-none-match': tag });
    expect(anew.status).toBe(200);
    expect(anew.tag).not.toBe(tag);
    expect(await asked({ 'sec-fetch-site': 'same-origin' })).toEqual({ status: 200, tag: undefined });
  });

  it('sets a strict content security policy and hides what it is made of', async () => {
    const response = await fetch(`${kitchen.base}/healthz`);
    const policy = response.headers.get('content-security-policy') ?? '';
    expect(policy).toContain("default-src 'self'");
    expect(policy).toContain("frame-ancestors 'none'");
    expect(policy).not.toContain('unsafe-eval');
    expect(response.headers.get('referrer-policy')).toBe('no-referrer');
    expect(response.headers.get('x-content-type-options')).toBe('nosniff');
    const answered = await fetch(`${kitchen.base}/api/v1/houses?x=1&x=2`);
    expect(answered.headers.get('cache-control')).toBe('no-store');
    expect(answered.headers.get('content-type')).toContain('charset=utf-8');
    expect(answered.headers.get('access-control-allow-origin')).toBeNull();
    const ines = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
    expect((await ines.raw('get', '/api/v1/lots?limit=1&limit=2')).status).toBe(400);
    expect((await ines.raw('put', '/api/v1/lots', {})).status).toBe(404);
    expect(response.headers.get('x-powered-by')).toBeNull();
  });

  it('refuses a body that is too large and one that is not JSON, in its own words', async () => {
    const tablet = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
    const path = pathOf(api.receive.accept, {});
    expect(await tablet.raw('post', path, { note: 'x'.repeat(200_000) })).toMatchObject({
      status: 413,
      body: { code: 'too_large' },
    });
    expect(await tablet.raw('post', path, '{"species": ')).toMatchObject({ status: 400, body: { code: 'invalid' } });
  });
});
