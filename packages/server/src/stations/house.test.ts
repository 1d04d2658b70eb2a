/** People come and leave, settings change: who may, what is written down, and what two chefs at once are told. */
import { api } from '@zabrik/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openTestKitchen, PIN, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { hakePieces, must, received, startHake, weighedAndClosed } from '../testing/work.ts';

let kitchen: TestKitchen;
let maren: Tablet;
let ines: Tablet;
beforeAll(async () => {
  kitchen = await openTestKitchen();
  maren = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
  ines = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
});
afterAll(() => kitchen.stop());

const personNamed = async (name: string) => {
  const { people } = await must(maren, api.house.people, {});
  const found = people.find((p) => p.name === name);
  if (found === undefined) throw new Error(`no ${name}`);
  return found;
};
const door = async () =>
  (await (await fetch(`${kitchen.base}/api/v1/houses/home/sign-in`)).json()).people.map(
    (p: { name: string }) => p.name,
  ) as string[];
const tryPin = async (personId: string, pin: string): Promise<number> =>
  (
    await fetch(`${kitchen.base}/api/v1/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', origin: kitchen.base },
      body: JSON.stringify({ personId, pin }),
    })
  ).status;

describe('people', () => {
  it('somebody new stands at the door once there is a PIN, which nobody else has', async () => {
    const added = await must(maren, api.house.addPerson, {
      body: { name: 'Odd Brekke', role: 'butcher', hourlyMinor: 1_720 },
    });
    expect(added).toMatchObject({ hasPin: false, hasPassword: false, leftAt: null, version: 1, hourlyMinor: 1_720 });
    expect(await door()).not.toContain('Odd Brekke');
    const pinTo = (pin: string) => maren.ask(api.house.setPin, { params: { personId: added.id }, body: { pin } });
    // everybody of this kitchen has this one
    expect((await pinTo(PIN)).body).toMatchObject({ code: 'bad_pin' });
    expect((await pinTo('1111')).body).toMatchObject({ code: 'bad_pin' });
    expect((await pinTo('90417')).status).toBe(200);
    expect(await door()).toContain('Odd Brekke');
    expect(await tryPin(added.id, '90417')).toBe(200);
    const again = await maren.ask(api.house.addPerson, { body: { name: 'Odd Brekke', role: 'viewer' } });
    expect(again.body).toMatchObject({ code: 'name_taken' });
  });

  it('another role ends the session at once; two chefs at once are told', async () => {
    const jory = await kitchen.signIn(kitchen.personOf('Jory Pellam'));
    const before = await personNamed('Jory Pellam');
    const to = { name: 'Jory Pellam', role: 'viewer', hourlyMinor: null, version: before.version } as const;
    const changed = await must(maren, api.house.changePerson, { params: { personId: before.id }, body: to });
    expect(changed).toMatchObject({ role: 'viewer', version: before.version + 1 });
    expect((await jory.ask(api.house.read, {})).status).toBe(401);
    const late = await maren.ask(api.house.changePerson, { params: { personId: before.id }, body: to });
    expect(late.body).toMatchObject({ code: 'changed_since' });
  });

  it('who leaves is out at once and keeps the name in the books; who comes back is given a PIN anew', async () => {
    const lot = await received(kitchen, ines);
    const gone = await personNamed('Ines Calloway');
    const left = (value: boolean, version: number) =>
      maren.ask(api.house.leave, { params: { personId: gone.id }, body: { left: value, version } });
    expect((await left(true, gone.version)).body).toMatchObject({ version: gone.version + 1 });
    expect((await ines.ask(api.house.read, {})).status).toBe(401);
    expect(await tryPin(gone.id, PIN)).toBe(401);
    expect(await door()).not.toContain('Ines Calloway');
    const line = await must(maren, api.receive.read, { params: { deliveryId: lot.deliveryId } });
    expect(JSON.stringify(line)).toContain('Ines Calloway');
    expect((await left(false, gone.version + 1)).body).toMatchObject({ leftAt: null, hasPin: false });
    expect(await tryPin(gone.id, PIN)).toBe(401);
    const pinned = { params: { personId: gone.id }, body: { pin: '60528' } };
    expect((await maren.ask(api.house.setPin, pinned)).status).toBe(200);
    expect(await tryPin(gone.id, '60528')).toBe(200);
  });

  it('a house keeps a head chef who can sign in', async () => {
    const me = await personNamed('Maren Ostle');
    const params = { personId: me.id };
    const demote = { name: me.name, role: 'sous-chef', hourlyMinor: null, version: me.version } as const;
    expect((await maren.ask(api.house.changePerson, { params, body: demote })).body).toMatchObject({
      code: 'last_head_chef',
    });
    expect(
      (await maren.ask(api.house.leave, { params, body: { left: true, version: me.version } })).body,
    ).toMatchObject({ code: 'last_head_chef' });
    // another who has no PIN yet is none who could
    const second = await must(maren, api.house.addPerson, { body: { name: 'Siri Vann', role: 'head-chef' } });
    expect(
      (await maren.ask(api.house.leave, { params, body: { left: true, version: me.version } })).body,
    ).toMatchObject({ code: 'last_head_chef' });
    await must(maren, api.house.setPin, { params: { personId: second.id }, body: { pin: '70314' } });
    const changed = await maren.ask(api.house.changePerson, { params, body: { ...demote, role: 'head-chef' } });
    expect(changed.status).toBe(200);
  });

  it('what an hour of somebody costs is between them and the head chef', async () => {
    const tobin = await kitchen.signIn(kitchen.personOf('Tobin Arkwell'));
    const odd = async (tablet: Tablet) =>
      (await must(tablet, api.house.people, {})).people.find((p) => p.name === 'Odd Brekke');
    expect(await odd(maren)).toMatchObject({ hourlyMinor: 1_720 });
    expect(await odd(tobin)).toMatchObject({ hourlyMinor: null });
    const logOf = async (tablet: Tablet) => JSON.stringify((await must(tablet, api.house.changes, {})).changes);
    expect(await logOf(maren)).toContain('"hourlyMinor":1720');
    expect(await logOf(tobin)).not.toContain('hourlyMinor');
  });

  it('one’s own PIN is changed by the one before, and opens this tablet still', async () => {
    const tobin = await kitchen.signIn(kitchen.personOf('Tobin Arkwell'));
    const id = (await personNamed('Tobin Arkwell')).id;
    const wrong = await tobin.ask(api.access.changePin, { body: { pin: '9999', next: '51739' } });
    expect(wrong.body).toMatchObject({ code: 'wrong_secret' });
    const trivial = await tobin.ask(api.access.changePin, { body: { pin: PIN, next: '2222' } });
    expect(trivial.body).toMatchObject({ code: 'bad_pin' });
    expect((await tobin.ask(api.access.changePin, { body: { pin: PIN, next: '51739' } })).status).toBe(200);
    expect(await tryPin(id, '51739')).toBe(200);
    expect(await tryPin(id, PIN)).toBe(401);
  });

  it('a PIN stands nowhere: not in the log of changes, not among the commands', async () => {
    const { db } = kitchen.services;
    const [rows] = await db.query(
      `select (select string_agg(c::text, ' ') from setting_change c) as changes, (select string_agg(c::text, ' ') from command c) as commands`,
    );
    for (const pin of ['90417', '60528', '70314', '51739']) expect(JSON.stringify(rows)).not.toContain(pin);
  });
});

describe('what an hour of somebody costs', () => {
  it('is theirs on the sheet, of each for as long as they had it in hand; the house’s where they have none', async () => {
    const bench = await openTestKitchen();
    const chef = await bench.signIn(bench.personOf('Maren Ostle'));
    const cutter = await bench.signIn(bench.personOf('Ines Calloway'));
    const { people } = await must(chef, api.house.people, {});
    const of = (name: string) => people.find((p) => p.name === name) ?? people[0];
    const cost = async (name: string, hourlyMinor: number | null) => {
      const person = of(name);
      await must(chef, api.house.changePerson, {
        params: { personId: person?.id ?? '' },
        body: { name, role: person?.role ?? 'butcher', hourlyMinor, version: person?.version ?? 0 },
      });
    };
    const at = (clock: string) => new Date(`2026-11-30T${clock}:00Z`);
    // said before the work begins: a sheet counts what held when its stage was closed
    bench.setClock(at('08:00'));
    await cost('Ines Calloway', 1_800);
    await cost('Jory Pellam', null);
    const { version } = await must(chef, api.house.read, {});
    await must(chef, api.house.saveSettings, { body: { version, settings: { labourMinorPerHour: 1_200 } } });
    bench.setClock(at('09:00'));
    const { breakdown } = await startHake(bench, cutter);
    const params = { breakdownId: breakdown.id };
    await must(cutter, api.bench.event, {
      params,
      body: { kind: 'hand-over', toPersonId: of('Jory Pellam')?.id ?? '', at: at('09:20').toISOString() },
    });
    bench.setClock(at('09:50'));
    await weighedAndClosed(cutter, breakdown.id, hakePieces);
    const { time } = await must(cutter, api.ledger.sheet, { params });
    // by hand: 20 minutes at 18.00 are 6.00, 30 at the house's 12.00 are 6.00
    expect(time).toMatchObject({ minutes: 50, labourMinor: 1_200 });
    await bench.stop();
  });
});

describe('settings', () => {
  it('change by themselves, leave the rest, and are written down from what to what', async () => {
    const before = await must(maren, api.house.read, {});
    const { version } = await must(maren, api.house.saveSettings, {
      body: { version: before.version, settings: { labourMinorPerHour: 1_800, name: 'The Long Net' } },
    });
    const after = await must(maren, api.house.read, {});
    expect(after).toMatchObject({ ...before, name: 'The Long Net', labourMinorPerHour: 1_800, version });
    await must(maren, api.house.saveSettings, { body: { version, settings: { energyMinorPerKwh: null } } });
    expect((await must(maren, api.house.read, {})).energyMinorPerKwh).toBeNull();
    const { changes } = await must(maren, api.house.changes, {});
    expect(changes.slice(0, 3)).toMatchObject([
      { what: 'energyMinorPerKwh', before: before.energyMinorPerKwh, after: null, by: 'Maren Ostle' },
      { after: expect.anything() },
      { after: expect.anything() },
    ]);
    expect(changes.find((c) => c.what === 'labourMinorPerHour')).toMatchObject({
      before: before.labourMinorPerHour,
      after: 1_800,
    });
  });

  it('said on an older version are refused, and what is said as it stands is no change', async () => {
    const now = await must(maren, api.house.read, {});
    const late = await maren.ask(api.house.saveSettings, {
      body: { version: now.version - 1, settings: { school: 'weight' } },
    });
    expect(late.body).toMatchObject({ code: 'changed_since' });
    const { changes } = await must(maren, api.house.changes, {});
    await must(maren, api.house.saveSettings, { body: { version: now.version, settings: { school: now.school } } });
    expect((await must(maren, api.house.changes, {})).changes).toHaveLength(changes.length);
  });

  it('two pots of one name, and a place in which something lies, are refused by name', async () => {
    const siri = maren;
    const now = await must(siri, api.house.read, {});
    const pot = { id: 'pot-a', name: 'The big one', litres: 40 };
    const twice = await siri.ask(api.house.saveSettings, {
      body: { version: now.version, settings: { vessels: [pot, { ...pot, id: 'pot-b', name: 'the big one' }] } },
    });
    expect(twice.body).toMatchObject({ code: 'invalid', field: 'settings.vessels' });
    const [first] = now.places;
    if (first === undefined) throw new Error('no place');
    const without = await siri.ask(api.house.saveSettings, {
      body: { version: now.version, settings: { places: now.places.filter((p) => p.id !== 'cold-room') } },
    });
    expect(without.body).toMatchObject({ code: 'invalid', field: 'settings.places' });
    const named = now.places.map((p) => (p.id === 'cold-room' ? { ...p, name: 'Walk-in' } : p));
    await must(siri, api.house.saveSettings, { body: { version: now.version, settings: { places: named } } });
    expect((await must(siri, api.house.read, {})).places.find((p) => p.id === 'cold-room')?.name).toBe('Walk-in');
  });

  it('the log of changes is read page by page, without a gap', async () => {
    const whole = (await must(maren, api.house.changes, { query: { limit: 200 } })).changes.map((c) => c.id);
    const pages: string[] = [];
    for (let cursor: string | null = '', n = 0; cursor !== null && n < 50; n += 1) {
      const page: { changes: readonly { id: string }[]; next: string | null } = await must(maren, api.house.changes, {
        query: { limit: 2, ...(cursor === '' ? {} : { cursor }) },
      });
      pages.push(...page.changes.map((c) => c.id));
      cursor = page.next;
    }
    expect(pages).toEqual(whole);
  });
});
