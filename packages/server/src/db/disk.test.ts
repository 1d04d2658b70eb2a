import { api } from '@zabrik/contract';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { deliveryBody, must, startHake, takeBody } from '../testing/work.ts';

let kitchen: TestKitchen;
/** The same house, on a server for which the disk is never free enough. */
let full: TestKitchen;
let ines: Tablet;
let maren: Tablet;
beforeAll(async () => {
  kitchen = await openTestKitchen();
  full = await openTestKitchen({ databaseUrl: kitchen.databaseUrl, settings: { ZABRIK_LEAVE_FREE_MB: '1000000' } });
  maren = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
  ines = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
});
afterAll(async () => {
  await full.stop();
  await kitchen.stop();
});

it('a full disk is said as such, by /readyz too; what stands can be read, and what comes is refused before it is begun', async () => {
  const { breakdown } = await startHake(kitchen, ines);
  const here = full.tablet(ines.cookie);
  expect(await here.raw('get', '/readyz')).toMatchObject({ status: 503, body: { ready: false, why: 'disk_full' } });
  expect(await here.ask(api.receive.accept, { body: deliveryBody(kitchen) })).toMatchObject({
    status: 507,
    body: { code: 'disk_full', title: expect.stringContaining('disk') },
  });
  const weighing = { params: { breakdownId: breakdown.id }, body: takeBody('head', 'stock', 500) };
  expect(await here.ask(api.bench.weigh, weighing)).toMatchObject({ status: 507, body: { code: 'disk_full' } });
  expect((await must(here, api.bench.read, { params: { breakdownId: breakdown.id } })).weighings).toEqual([]);
  // with room again the same command goes in
  expect(await ines.raw('get', '/readyz')).toMatchObject({ status: 200, body: { ready: true } });
  await must(ines, api.bench.weigh, weighing);
});

it('what the database says of a full disk is said as such, and nothing was changed is said where it is known', async () => {
  const { db } = kitchen.services;
  await db.query(`create function full_disk() returns trigger language plpgsql as $$ begin
      if new.note = 'full' then raise exception 'could not extend file' using errcode = '53100'; end if;
      if new.note = 'broken' then raise exception 'a bug' using errcode = 'XX000'; end if;
      return new; end $$;
    create trigger full_disk before insert on movement for each row execute function full_disk()`);
  const withNote = (note: string) => ines.ask(api.receive.accept, { body: deliveryBody(kitchen, { note }) });
  expect(await withNote('full')).toMatchObject({ status: 507, body: { code: 'disk_full' } });
  expect(await withNote('broken')).toMatchObject({
    status: 500,
    body: { code: 'broken', detail: expect.stringContaining('Nothing was changed') },
  });
  // broken when it is kept: what the database did is not known here, and not said
  await db.query(`create function fails() returns trigger language plpgsql as $$ begin raise exception 'a bug' using errcode = 'XX000'; end $$;
    create constraint trigger late after insert on command deferrable initially deferred for each row execute function fails()`);
  const late = await maren.ask(api.receive.addSupplier, { body: { name: 'Late Quay' } });
  expect(late).toMatchObject({ status: 500, body: { code: 'broken' } });
  expect(JSON.stringify(late.body)).not.toContain('Nothing was changed');
});
