import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, statfsSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { KitchenProcess, signInOver } from '../kitchenProcess.ts';
import { Benches } from './benches.ts';
import type { Counts } from './table.ts';

const SIZE_MB = 700;

/** The records lie on a small disk that other things fill up while four benches weigh. Undefined where this machine lets nobody make such a disk. */
export async function disk(fills: number): Promise<Counts | undefined> {
  const place = mkdtempSync(join(tmpdir(), 'zabrik-disk-'));
  execFileSync('chmod', ['711', place]);
  if (spawnSync('mount', ['-t', 'tmpfs', '-o', `size=${SIZE_MB}m,mode=711`, 'tmpfs', place]).status !== 0) {
    rmSync(place, { recursive: true });
    return undefined;
  }
  const kitchen = new KitchenProcess({
    cluster: 'pg-disk',
    home: join(place, 'pg'),
    fsync: 'on',
    port: 0,
    breakdowns: 0,
  });
  const counts = { fills: 0, refused: 0, unsaid: 0, notBack: 0, lost: 0, doubled: 0, otherName: 0 };
  const filler = join(place, 'other-things');
  try {
    await kitchen.start();
    for (let n = 0; n < fills; n += 1) {
      const benches = new Benches(kitchen);
      await benches.start(5);
      await wait(1_500);
      const { bavail, bsize } = statfsSync(place);
      // all but twenty megabytes: less than the server leaves free, and enough for the database to end what it has begun
      writeFileSync(filler, Buffer.alloc(Math.max(0, bavail * bsize - 20_000_000)));
      await wait(3_000);
      const session = await signInOver(kitchen.base, 'Maren Ostle').catch(() => undefined);
      const ready = await fetch(`${kitchen.base}/readyz`).then(async (r) => ({
        status: r.status,
        said: (await r.json()) as { why?: string },
      }));
      if (ready.status !== 503 || ready.said.why !== 'disk_full') counts.unsaid += 1;
      // what stands can still be read
      if (
        session !== undefined &&
        ((await session.get('/api/v1/lots?limit=1')) as { lots?: unknown[] }).lots === undefined
      )
        counts.unsaid += 1;
      counts.refused += benches.refusals.get('disk_full') ?? 0;
      if ((benches.refusals.get('disk_full') ?? 0) === 0) counts.unsaid += 1;
      const before = benches.acknowledged.size;
      rmSync(filler);
      const late = Date.now() + 20_000;
      while (benches.acknowledged.size === before && Date.now() < late) await wait(50);
      if (benches.acknowledged.size === before) counts.notBack += 1;
      await benches.stop();
      const kept = benches.recount();
      counts.lost += kept.lost;
      counts.doubled += kept.doubled;
      counts.otherName += kept.otherName;
      counts.fills += 1;
    }
    return counts;
  } finally {
    await kitchen.stop().catch(() => undefined);
    spawnSync('umount', [place]);
    rmSync(place, { recursive: true, force: true });
  }
}
