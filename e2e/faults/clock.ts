import { setTimeout as wait } from 'node:timers/promises';
import type { KitchenProcess } from '../kitchenProcess.ts';
import { Benches } from './benches.ts';
import { watchStalls } from './stalls.ts';
import type { Counts } from './table.ts';

/** The server's clock goes an hour back in the middle of the work, and later right again: as when somebody sets it by hand. */
export async function clock(kitchen: KitchenProcess, shifts: number): Promise<Counts> {
  const benches = new Benches(kitchen);
  await benches.start(5);
  const stalls = watchStalls(() => kitchen.base);
  for (let n = 0; n < shifts; n += 1) {
    for (const off of [-3_600_000, 0]) {
      await kitchen.killServer();
      await kitchen.startServer({ ZABRIK_CLOCK_OFF_MS: String(off) });
      await wait(1_500);
    }
  }
  await benches.stop();
  return { shifts, acknowledged: benches.acknowledged.size, ...benches.recount(), stallMs: await stalls.stop() };
}
