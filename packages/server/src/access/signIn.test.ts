/** Guessing: how many tries are judged, at whose door they count, and for how long it stays shut. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openTestKitchen, PIN, type TestKitchen } from '../testing/openTestKitchen.ts';

let kitchen: TestKitchen;
beforeAll(async () => {
  kitchen = await openTestKitchen();
});
afterAll(() => kitchen.stop());
const nobody = () => kitchen.tablet('');

describe('guessing a PIN', () => {
  it('judges five of thirty tries at once, also when the right PIN is among them', async () => {
    const personId = kitchen.personOf('Jory Pellam');
    const tries = Array.from({ length: 30 }, (_, i) =>
      nobody().raw('post', '/api/v1/session', { personId, pin: i === 25 ? PIN : '0000' }),
    );
    const answers = (await Promise.all(tries)).map((r) => r.status);
    expect(answers.filter((s) => s !== 429).length).toBeLessThanOrEqual(5);
  });

  it('keeps a stranger’s guesses from the tablet that stands in the kitchen, and PINs from the password', async () => {
    const personId = kitchen.personOf('Maren Ostle');
    const signIn = (body: object, cookie = '') =>
      nobody().raw('post', '/api/v1/session', { personId, ...body }, { cookie });
    const first = await signIn({ pin: PIN });
    const device = first.headers.getSetCookie().find((c) => c.startsWith('zabrik-device=')) ?? '';
    expect(device).toMatch(/HttpOnly/);
    expect(device).toMatch(/SameSite=Strict/);
    for (let i = 0; i < 6; i += 1) await signIn({ pin: '0000' });
    expect((await signIn({ pin: PIN })).status).toBe(429);
    expect((await signIn({ pin: PIN }, 'zabrik-device=AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA')).status).toBe(429);
    expect((await signIn({ pin: PIN }, device.split(';')[0])).status).toBe(200);
    expect((await signIn({ password: 'home-office' })).status).toBe(200);
  });

  it('pauses longer each time', async () => {
    const personId = kitchen.personOf('Tobin Arkwell');
    const start = new Date('2026-11-24T09:00:00Z');
    const attempt = () => nobody().raw('post', '/api/v1/session', { personId, pin: '0000' });
    kitchen.setClock(start);
    for (let i = 0; i < 4; i += 1) await attempt();
    expect((await attempt()).body['detail']).toContain('09:05');
    kitchen.setClock(new Date('2026-11-24T09:05:01Z'));
    for (let i = 0; i < 4; i += 1) await attempt();
    expect((await attempt()).body['detail']).toContain('09:15');
    kitchen.setClock(undefined);
  });
});
