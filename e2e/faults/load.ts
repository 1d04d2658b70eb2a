import { fork } from 'node:child_process';
import { once } from 'node:events';
import { setTimeout as wait } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import type { KitchenProcess } from '../kitchenProcess.ts';
import { Benches } from './benches.ts';
import type { CrowdDid } from './crowd.ts';
import { watchStalls } from './stalls.ts';
import { stolenSince } from './stolen.ts';
import type { Counts } from './table.ts';

/** Four benches weigh while a crowd of other screens listens, prints and exports. */
export async function load(kitchen: KitchenProcess, seconds: number): Promise<Counts> {
  const crowd = fork(fileURLToPath(new URL('crowd.ts', import.meta.url)), [kitchen.base]);
  await once(crowd, 'message');
  const benches = new Benches(kitchen);
  await benches.start(40);
  const stalls = watchStalls(() => kitchen.base);
  const stolen = stolenSince();
  await wait(seconds * 1_000);
  const stolenRatios = [stolen()];
  await benches.stop();
  crowd.send('stop');
  const [did] = (await once(crowd, 'message')) as [CrowdDid];
  const stallMs = await stalls.stop();
  const { weighing: weighMs, movement: takeOutMs } = benches.tookMs;
  return { weighMs, takeOutMs, ...did, stolenRatios, stallMs };
}
