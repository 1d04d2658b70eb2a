import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { api } from '@zabrik/contract';
import pg from 'pg';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { makeDatabase, openTestKitchen, type TestKitchen } from '../testing/openTestKitchen.ts';
import { deliveryBody, must, startHake, takeBody } from '../testing/work.ts';
import { writeBackup } from './makeBackup.ts';
import { runOn } from './postgresProgram.ts';
import { recordRestored } from './record.ts';

let kitchen: TestKitchen;
beforeAll(async () => {
  kitchen = await openTestKitchen();
});
afterAll(() => kitchen.stop());

it('what tablets did after the backup is named by the restored records, and fits together when it is said again', async () => {
  const file = join(mkdtempSync(join(tmpdir(), 'zabrik-restored-')), 'x.dump');
  const ines = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
  const before = uuidv7();
  await must(ines, api.receive.accept, { body: deliveryBody(kitchen) }, before);
  const stateAt = new Date();
  await writeBackup(kitchen.databaseUrl, file, stateAt);
  // one tablet takes in a fish and starts on it, another weighs its pieces
  const keys = [uuidv7(), uuidv7(), uuidv7()] as const;
  const accept = { body: deliveryBody(kitchen) };
  const line = await must(ines, api.receive.accept, accept, keys[0]);
  const start = {
    body: { lotId: line.lotId ?? '', planId: 'round-fish-two-fillets', animals: 1, massMg: null },
  };
  const breakdown = await must(ines, api.bench.start, start, keys[1]);
  const weigh = { params: { breakdownId: breakdown.id }, body: takeBody('head', 'stock', 500) };
  const weighing = await must(ines, api.bench.weigh, weigh, keys[2]);

  const databaseUrl = await makeDatabase();
  await runOn(databaseUrl, 'pg_restore', ['--no-owner', '--no-privileges', '--exit-on-error', file]);
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  await recordRestored(client, new Date(), stateAt);
  await client.end();
  const back = await openTestKitchen({ databaseUrl });
  const inesBack = await back.signIn(kitchen.personOf('Ines Calloway'));
  expect((await must(inesBack, api.access.me, {})).restored).toMatchObject({ stateAt: stateAt.toISOString() });
  const asked = { body: { keys: [before, ...keys] } };
  expect(await must(inesBack, api.access.known, asked)).toEqual({ unknown: [...keys] });
  expect(await must(inesBack, api.receive.accept, accept, keys[0])).toMatchObject({
    lotId: line.lotId,
    movementId: line.movementId,
  });
  expect((await must(inesBack, api.bench.start, start, keys[1])).id).toBe(breakdown.id);
  expect(await must(inesBack, api.bench.weigh, weigh, keys[2])).toEqual(weighing);
  expect(await must(inesBack, api.access.known, asked)).toEqual({ unknown: [] });
  await startHake(back, inesBack, kitchen.home);
  await back.stop();
});
