/** A machine with nothing on it becomes a kitchen: by the code it printed, once; and a head chef who has forgotten everything comes in again. */
import { api } from '@zabrik/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { isTrivial } from '../access/pins.ts';
import { readConfig } from '../config.ts';
import { openServices } from '../openServices.ts';
import { makeDatabase, openTestKitchen, type TestKitchen } from '../testing/openTestKitchen.ts';

const CODE = 'KQ7M-4XWR';
let kitchen: TestKitchen;
beforeAll(async () => {
  const databaseUrl = await makeDatabase();
  const opened = await openServices(
    readConfig({ DATABASE_URL: databaseUrl, SESSION_SECRET: 's'.repeat(40), LOG_LEVEL: 'silent' }),
  );
  await opened.close();
  kitchen = await openTestKitchen({ databaseUrl, settings: { ZABRIK_SETUP_CODE: CODE } });
});
afterAll(() => kitchen.stop());

const post = async (path: string, body: unknown, cookie = '') => {
  const reply = await fetch(`${kitchen.base}/api/v1${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: kitchen.base, cookie },
    body: JSON.stringify(body),
  });
  const cookies = reply.headers.getSetCookie().map((c) => c.split(';')[0]);
  return { status: reply.status, body: (await reply.json()) as Record<string, unknown>, cookie: cookies.join('; ') };
};
const get = async (path: string, cookie = '') =>
  (await (await fetch(`${kitchen.base}/api/v1${path}`, { headers: { cookie } })).json()) as Record<string, unknown>;
const asked = {
  code: 'kq7m 4xwr',
  name: 'Harbour Table',
  currency: 'EUR',
  timezone: 'Europe/Lisbon',
  profileId: 'eu',
  headChef: { name: 'Alda Fonte', pin: '7302', password: 'salt and smoke' },
};

describe('an empty machine', () => {
  it('offers to be set up, and knows which profile is usual where', async () => {
    expect(await get('/set-up?timezone=America/Chicago')).toMatchObject({ open: true, usual: 'us-food-code-2022' });
    expect(await get('/set-up?timezone=Europe/Lisbon')).toMatchObject({ usual: 'eu' });
    expect((await get('/houses'))['houses']).toEqual([]);
  });

  it.each([
    ['another code', { ...asked, code: 'AAAA-AAAA' }, 'wrong_code'],
    ['a PIN everybody tries', { ...asked, headChef: { ...asked.headChef, pin: '1234' } }, 'bad_pin'],
    ['no such money', { ...asked, currency: 'XYZ' }, 'invalid'],
    ['no such clock', { ...asked, timezone: 'Europe/Atlantis' }, 'invalid'],
    ['no such profile', { ...asked, profileId: 'mars' }, 'invalid'],
    ['a short password', { ...asked, headChef: { ...asked.headChef, password: 'elevenchars' } }, 'invalid'],
  ])('is not set up by %s, and nothing is left behind', async (_, body, code) => {
    expect((await post('/set-up', body)).body['code']).toBe(code);
    expect((await get('/houses'))['houses']).toEqual([]);
  });

  it('is set up once, whoever asks at the same moment; its head chef is in at once and can receive', async () => {
    const both = await Promise.all([post('/set-up', asked), post('/set-up', { ...asked, name: 'The Other Table' })]);
    const [first, second] = both[0].status === 200 ? both : [both[1], both[0]];
    expect(first.status).toBe(200);
    expect(second.body['code']).toBe('no_set_up');
    expect(await get('/set-up')).toMatchObject({ open: false, profiles: [] });
    expect((await post('/set-up', asked)).body['code']).toBe('no_set_up');
    const house = await get('/house', first.cookie);
    expect(house).toMatchObject({
      currency: 'EUR',
      timezone: 'Europe/Lisbon',
      vessels: [],
      creditMinorPerKg: {},
      labourMinorPerHour: null,
      limits: { profileId: 'eu' },
      version: 1,
    });
    expect(await get('/limits', first.cookie)).toMatchObject({ selected: true });
    const { changes } = (await get('/house/changes', first.cookie)) as { changes: { what: string; by: string }[] };
    expect(changes).toMatchObject([{ what: 'set-up', by: 'Alda Fonte' }]);
    const recovery = String(first.body['recoveryCode']);
    expect(recovery).toMatch(/^([A-HJ-NP-Z2-9]{4}-){5}[A-HJ-NP-Z2-9]{4}$/);

    // somebody new is shown what to touch, until they have had enough of it
    expect(await get('/session', first.cookie)).toMatchObject({ firstDay: true });
    expect((await post('/session/first-day-over', {}, first.cookie)).status).toBe(200);
    expect(await get('/session', first.cookie)).toMatchObject({ firstDay: false });

    // weeks later: both forgotten, the paper found
    const [{ slug }] = (await get('/houses'))['houses'] as [{ slug: string }];
    expect(['harbour-table', 'the-other-table']).toContain(slug);
    const personId = (first.body['me'] as { person: { id: string } }).person.id;
    const anew = { slug, personId, pin: '8046', password: 'smoke and salt' };
    expect((await post('/recovery', { ...anew, code: 'AAAA-AAAA-AAAA-AAAA-AAAA-AAAA' })).body['code']).toBe(
      'wrong_code',
    );
    expect((await post('/recovery', { ...anew, slug: 'nowhere', code: recovery })).body['code']).toBe('wrong_code');
    expect((await post('/recovery', { ...anew, pin: '4444', code: recovery })).body['code']).toBe('bad_pin');
    const back = await post('/recovery', { ...anew, code: recovery.toLowerCase().replaceAll('-', ' ') });
    expect(back.status).toBe(200);
    expect(back.body['recoveryCode']).not.toBe(recovery);
    // a code opens once, and whoever was in is out
    expect((await post('/recovery', { ...anew, code: recovery })).body['code']).toBe('wrong_code');
    expect((await get('/house', first.cookie))['code']).toBe('not_signed_in');
    expect((await post('/session', { personId, pin: '7302' })).status).toBe(401);
    const again = await post('/session', { personId, pin: '8046' });
    expect(again.status).toBe(200);
    expect((await post('/session', { personId, password: 'smoke and salt' })).status).toBe(200);

    // another code, where the paper is lost
    const printed = await post('/recovery/code', {}, again.cookie);
    expect(printed.status).toBe(200);
    expect((await post('/recovery', { ...anew, code: back.body['recoveryCode'] })).body['code']).toBe('wrong_code');
  });
});

it('a kitchen that was not started with a code cannot be set up by anybody', async () => {
  const databaseUrl = await makeDatabase();
  const opened = await openServices(
    readConfig({ DATABASE_URL: databaseUrl, SESSION_SECRET: 's'.repeat(40), LOG_LEVEL: 'silent' }),
  );
  await opened.close();
  const bare = await openTestKitchen({ databaseUrl });
  const reply = await fetch(`${bare.base}/api/v1/set-up`);
  expect(await reply.json()).toMatchObject({ open: false });
  await bare.stop();
});

it('a PIN that anybody would try first is trivial', () => {
  for (const pin of ['0000', '1111', '121212', '1212', '123123', '4567', '987654', '012345', '77777'])
    expect(isTrivial(pin), pin).toBe(true);
  for (const pin of ['2468', '7302', '1122', '80461', '135790', '1357']) expect(isTrivial(pin), pin).toBe(false);
});

it('the contract of setting up is open to who knows the code, and of recovery to who has the paper', () => {
  expect([api.access.setUp.may, api.access.recover.may, api.access.newRecoveryCode.may]).toEqual([
    'open',
    'open',
    'head-chef',
  ]);
});
