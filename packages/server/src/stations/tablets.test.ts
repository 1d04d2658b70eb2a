/** A tablet is lent to a bench by its name and its people, told again at the door, and forgotten with whoever is signed in on it. */
import { api } from '@zabrik/contract';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { openTestKitchen, PIN, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { must } from '../testing/work.ts';

let kitchen: TestKitchen;
let maren: Tablet;
beforeAll(async () => {
  kitchen = await openTestKitchen();
  maren = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
});
afterAll(() => kitchen.stop());
afterEach(() => kitchen.setClock(undefined));

/** Signs in as a browser does that keeps its cookies. */
async function signInOn(personId: string, cookies = ''): Promise<string> {
  const reply = await kitchen.tablet(cookies).raw('post', '/api/v1/session', { personId, pin: PIN });
  expect(reply.status).toBe(200);
  const set = reply.headers.getSetCookie();
  expect(set.find((c) => c.startsWith('zabrik-device=') && !c.includes('Expires=Thu, 01 Jan 1970'))).toMatch(
    /Path=\/api\/v1;.*HttpOnly/,
  );
  const kept = set.flatMap((c) => (/^zabrik(-device)?=[^;]/.test(c) ? [c.split(';')[0] ?? ''] : []));
  return kept.join('; ');
}
const door = async (cookies: string) =>
  (await kitchen.tablet(cookies).raw('get', '/api/v1/houses/home/sign-in')).body as unknown as {
    tablet: string | null;
    people: { name: string; ofThisTablet: boolean; onShift: boolean }[];
  };
const deviceOnly = (cookies: string): string => cookies.split('; ').find((c) => c.startsWith('zabrik-device=')) ?? '';
const hereOf = async (cookies: string) =>
  (await must(kitchen.tablet(cookies), api.access.tablets, {})).tablets.find((t) => t.here);

describe('tablets', () => {
  it('are known once somebody has signed in, lent by name, and say so at the door to that tablet alone', async () => {
    const cookies = await signInOn(kitchen.personOf('Maren Ostle'));
    const here = await hereOf(cookies);
    expect(here).toMatchObject({ name: null, people: [] });
    expect(here?.seenAt).not.toBeNull();
    const jory = kitchen.personOf('Jory Pellam');
    await must(maren, api.access.lendTablet, {
      params: { tabletId: here?.id ?? '' },
      body: { name: 'Fish bench', people: [jory, jory] },
    });
    expect(await hereOf(cookies)).toMatchObject({ name: 'Fish bench', people: [jory] });
    const there = await door(deviceOnly(cookies));
    expect(there.tablet).toBe('Fish bench');
    expect(there.people.filter((p) => p.ofThisTablet).map((p) => p.name)).toEqual(['Jory Pellam']);
    const street = await door('');
    expect(street.tablet).toBeNull();
    expect(street.people.some((p) => p.ofThisTablet || p.onShift)).toBe(false);
    // of a second sign-in on it nothing new comes
    const again = await signInOn(jory, cookies);
    expect(deviceOnly(again)).toBe(deviceOnly(cookies));
  });

  it('offer first who works at this hour by the house’s own clock, and say it to no stranger', async () => {
    const cookies = await signInOn(kitchen.personOf('Maren Ostle'));
    const { people } = await must(maren, api.house.people, {});
    const jory = people.find((p) => p.name === 'Jory Pellam');
    await must(maren, api.house.changePerson, {
      params: { personId: jory?.id ?? '' },
      body: {
        name: 'Jory Pellam',
        role: 'butcher',
        hourlyMinor: null,
        shifts: [{ days: [3], from: '07:00', until: '15:00' }],
        skills: ['fish'],
        version: jory?.version ?? 0,
      },
    });
    const working = async (at: string, as: string): Promise<string[]> => {
      kitchen.setClock(new Date(at));
      return (await door(as)).people.filter((p) => p.onShift).map((p) => p.name);
    };
    // a Wednesday in July: London is an hour before UTC
    expect(await working('2026-07-15T06:00:00Z', deviceOnly(cookies))).toEqual(['Jory Pellam']);
    expect(await working('2026-07-15T05:59:00Z', deviceOnly(cookies))).toEqual([]);
    expect(await working('2026-07-15T14:00:00Z', deviceOnly(cookies))).toEqual([]);
    expect(await working('2026-07-16T10:00:00Z', deviceOnly(cookies))).toEqual([]);
    expect(await working('2026-07-15T10:00:00Z', '')).toEqual([]);
  });

  it('that are forgotten are strangers, and whoever is signed in on them is out; others stay', async () => {
    const lost = await signInOn(kitchen.personOf('Tobin Arkwell'));
    const kept = await signInOn(kitchen.personOf('Tobin Arkwell'));
    const tabletId = (await hereOf(lost))?.id ?? '';
    const not = await kitchen.tablet(kept).ask(api.access.forgetTablet, { params: { tabletId } });
    expect(not.body).toMatchObject({ code: 'not_your_role' });
    await must(maren, api.access.forgetTablet, { params: { tabletId } });
    expect((await kitchen.tablet(lost).ask(api.house.read, {})).status).toBe(401);
    expect((await kitchen.tablet(kept).ask(api.house.read, {})).status).toBe(200);
    expect((await must(maren, api.access.tablets, {})).tablets.map((t) => t.id)).not.toContain(tabletId);
    const again = await maren.ask(api.access.forgetTablet, { params: { tabletId } });
    expect(again.body).toMatchObject({ code: 'not_found' });
  });

  it('are lent to people of the house who are still there', async () => {
    const cookies = await signInOn(kitchen.personOf('Maren Ostle'));
    const tabletId = (await hereOf(cookies))?.id ?? '';
    const stranger = kitchen.personOf('Maren Ostle', kitchen.other);
    const lent = await maren.ask(api.access.lendTablet, {
      params: { tabletId },
      body: { name: 'Stove', people: [stranger] },
    });
    expect(lent.body).toMatchObject({ code: 'invalid', field: 'people' });
  });

  it('what somebody must not touch goes with who is signed in', async () => {
    const added = await must(maren, api.house.addPerson, {
      body: { name: 'Liv Aaberg', role: 'butcher', mustNotTouch: ['crustaceans'], skills: ['fish', 'stove'] },
    });
    expect(added).toMatchObject({ skills: ['fish', 'stove'], mustNotTouch: ['crustaceans'], shifts: [] });
    expect((await maren.ask(api.house.setPin, { params: { personId: added.id }, body: { pin: '41907' } })).status).toBe(
      200,
    );
    const liv = await kitchen.signIn(added.id, '41907');
    expect((await must(liv, api.access.me, {})).mustNotTouch).toEqual(['crustaceans']);
    // another name leaves the rest as it was said
    const changed = await must(maren, api.house.changePerson, {
      params: { personId: added.id },
      body: { name: 'Liv Aaberg-Holm', role: 'butcher', hourlyMinor: null, version: added.version },
    });
    expect(changed).toMatchObject({ skills: ['fish', 'stove'], mustNotTouch: ['crustaceans'] });
  });
});
