/** Scales, probe and printer of a house: put in by address, tried, listened to, checked with weights, taken out. */
import { once } from 'node:events';
import { createServer } from 'node:net';
import { api, type ScaleReading } from '@zabrik/contract';
import { grams } from '@zabrik/core';
import { startSimulatedPrinter, startSimulatedProbe, startSimulatedScale } from '@zabrik/devices';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { hakePieces, must, startHake, takeBody } from '../testing/work.ts';

let kitchen: TestKitchen;
let maren: Tablet;
let tobin: Tablet;
const calm = { host: '127.0.0.1', port: 0, lagMs: 5, normal: () => 0 };
const started: { stop(): Promise<void> }[] = [];
const scaleThere = async () => {
  const scale = await startSimulatedScale({ ...calm, intervalMg: 2_000, maxMg: 6_000_000, restMs: 20 });
  started.push(scale);
  return `127.0.0.1:${scale.port}`;
};
beforeAll(async () => {
  kitchen = await openTestKitchen({ settings: { ZABRIK_SIMULATED: '0' } });
  maren = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
  tobin = await kitchen.signIn(kitchen.personOf('Tobin Arkwell'));
});
afterAll(async () => {
  await kitchen.stop();
  for (const device of started) await device.stop();
});

const tried = (kind: 'scale' | 'probe' | 'printer', address: string) =>
  must(maren, api.house.tryDevice, { body: { kind, address } });
const saved = async (settings: Record<string, unknown>): Promise<void> => {
  const { version } = await must(maren, api.house.read, {});
  await must(maren, api.house.saveSettings, { body: { version, settings } });
};
const plate = { accuracyClass: 'III', intervalMg: 2_000, maxMg: 6_000_000 } as const;
const homeDevices = () => kitchen.services.devicesOf(kitchen.home?.houseId ?? '');
/** Waits for what a device says, however long it takes. */
const until = async (there: () => boolean | Promise<boolean>): Promise<void> => {
  while (!(await there())) await new Promise((r) => setTimeout(r, 20));
};

describe('a device is tried before it is kept', () => {
  it('a scale says what stands on its plate and what lies on it; probe and printer that they are there', async () => {
    expect(await tried('scale', await scaleThere())).toEqual({ answers: true, plate, netMg: 0, centiC: null });
    const probe = await startSimulatedProbe(calm);
    const printer = await startSimulatedPrinter(calm);
    started.push(probe, printer);
    expect(await tried('probe', `127.0.0.1:${probe.port}`)).toMatchObject({
      answers: true,
      centiC: expect.any(Number),
    });
    expect(await tried('printer', `127.0.0.1:${printer.port}`)).toMatchObject({ answers: true });
    // a printer is no scale, and a scale no printer
    expect(await tried('scale', `127.0.0.1:${printer.port}`)).toMatchObject({ answers: false, plate: null });
    expect(await tried('probe', `127.0.0.1:${printer.port}`)).toMatchObject({ answers: false, centiC: null });
  });

  it('nothing there, one that hangs up and one that only chatters are no scale', async () => {
    const odd = createServer((socket) =>
      socket
        .on('error', () => undefined)
        .resume()
        .end('GET / HTTP/1.1\n'.repeat(2_000)),
    );
    odd.listen(0, '127.0.0.1');
    await once(odd, 'listening');
    const { port } = odd.address() as { port: number };
    expect(await tried('scale', `127.0.0.1:${port}`)).toMatchObject({ answers: false });
    odd.close();
    await once(odd, 'close');
    expect(await tried('scale', `127.0.0.1:${port}`)).toMatchObject({ answers: false });
  });

  it.each([
    '8.8.8.8:80',
    '172.15.0.1:7001',
    '192.169.0.1:7001',
    'scale.example.com:7001',
    '2130706433:7001',
    '0x7f000001:7001',
    '127.0.0.1:0',
    '127.0.0.1:70000',
    '10.0.0.300:7001',
    'no port',
  ])('no address outside of the kitchen’s network: %s', async (address) => {
    const { status } = await maren.raw('post', '/api/v1/devices/try', { kind: 'scale', address });
    expect(status).toBe(400);
  });
  it.each(['10.1.2.3:7001', '172.31.0.9:7001', '169.254.10.2:7001', 'bench-scale:7001', 'scale.local:7001'])(
    'of the kitchen’s own: %s',
    async (address) => {
      const { version, scales } = await must(maren, api.house.read, {});
      const settings = { scales: [{ ...scales[0], address }] as const };
      expect((await maren.ask(api.house.saveSettings, { body: { version, settings } })).status).toBe(200);
    },
  );
  it('by the head chef alone', async () => {
    const asked = await tobin.ask(api.house.tryDevice, { body: { kind: 'scale', address: '127.0.0.1:9' } });
    expect(asked.status).toBe(403);
  });
});

describe('a scale that is kept', () => {
  it('is listened to at once, on screens that are open too; moved, it is heard from there; taken out, it is away', async () => {
    const heard: ScaleReading[] = [];
    homeDevices().subscribe((reading) => void heard.push(reading));
    const bench = { id: 'bench', name: 'Bench', ...plate, address: await scaleThere() };
    await saved({ scales: [bench] });
    await until(() => heard.some((r) => r.scale === 'bench' && r.state === 'steady' && r.netMg === 0));
    const listed = await must(tobin, api.house.devices, {});
    expect(listed.scales).toEqual([{ id: 'bench', connected: true, address: bench.address, checks: [] }]);

    const moved = await scaleThere();
    await saved({ scales: [{ ...bench, address: moved }] });
    await until(async () => (await must(tobin, api.house.devices, {})).scales[0]?.address === moved);
    await until(() => homeDevices().scales.get('bench')?.latest.state === 'steady');
    await homeDevices().scales.get('bench')?.command('load 500000');
    await until(() => heard.at(-1)?.netMg === grams(500) && heard.at(-1)?.state === 'steady');

    const { address: _, ...typed } = bench;
    await saved({ scales: [typed] });
    await until(() => homeDevices().scales.size === 0);
    expect(heard.at(-1)).toMatchObject({ scale: 'bench', state: 'away' });
    expect((await must(tobin, api.house.devices, {})).scales[0]).toMatchObject({ connected: false, address: null });
  });

  it('is not seen from another house on the machine, and probe and printer go the same way', async () => {
    const theirs = await kitchen.signIn(kitchen.personOf('Maren Ostle', kitchen.other));
    const bench = { id: 'bench', name: 'Bench', ...plate, address: await scaleThere() };
    await saved({ scales: [bench], probeAt: '127.0.0.1:9', printerAt: 'printer.local:9100' });
    await until(() => homeDevices().probe !== undefined);
    expect(await must(maren, api.house.devices, {})).toMatchObject({
      probe: '127.0.0.1:9',
      printer: 'printer.local:9100',
    });
    const others = await must(theirs, api.house.devices, {});
    expect(others).toMatchObject({ probe: null, printer: null });
    expect(others.scales.every((s) => s.address === null && !s.connected)).toBe(true);
    await saved({ scales: [bench], probeAt: null, printerAt: null });
    await until(async () => (await must(maren, api.house.devices, {})).probe === null);
    expect(await must(maren, api.house.read, {})).toMatchObject({ probeAt: null, printerAt: null });
  });

  it('is checked with weights: who, when and what it showed stay, with the plate it had that day', async () => {
    await saved({ scales: [{ id: 'bench', name: 'Bench', ...plate }] });
    const points = [
      { loadMg: grams(500), shownMg: grams(500) },
      { loadMg: grams(2_000), shownMg: grams(1_998) },
    ];
    const check = await must(tobin, api.house.checkScale, { body: { scale: 'bench', points } });
    expect(check).toMatchObject({
      by: 'Tobin Arkwell',
      scaleName: 'Bench',
      accuracyClass: 'III',
      intervalMg: 2_000,
      points,
    });
    await saved({ scales: [{ id: 'bench', name: 'Bench', ...plate, intervalMg: 5_000 }] });
    const [scale] = (await must(maren, api.house.devices, {})).scales;
    expect(scale?.checks).toEqual([check]);
    const over = await tobin.ask(api.house.checkScale, {
      body: { scale: 'bench', points: [{ loadMg: grams(6_001), shownMg: grams(6_000) }] },
    });
    expect(over.status).toBe(400);
    const none = await tobin.ask(api.house.checkScale, { body: { scale: 'floor', points } });
    expect(none.status).toBe(404);
  });
});

describe('the practice scale of a house that simulates nothing', () => {
  const onPan = (body: Record<string, unknown>) =>
    tobin.ask(api.simulation.pan, { body: { what: 'load', massMg: grams(700), ...body } as never });

  it('stands where it is wished for, gives what is put on it, and goes', async () => {
    expect((await onPan({ scale: 'practice' })).status).toBe(503);
    await saved({ practiceScale: true });
    await until(() => homeDevices().scales.has('practice'));
    const heard: ScaleReading[] = [];
    const stop = homeDevices().subscribe((reading) => heard.push(reading));
    await until(async () => (await onPan({ scale: 'practice' })).status === 200);
    await until(() => heard.at(-1)?.state === 'steady' && heard.at(-1)?.netMg === grams(700));
    expect(heard.at(-1)?.scale).toBe('practice');
    // it is no scale of the house's own: nothing is weighed at the door by its plate, and a real one cannot be loaded from the browser
    expect((await must(maren, api.house.read, {})).scales.map((s) => s.id)).not.toContain('practice');
    expect((await onPan({ scale: 'bench' })).status).toBe(404);
    const named = { id: 'practice', name: 'Practice', ...plate };
    const { version } = await must(maren, api.house.read, {});
    expect(await maren.ask(api.house.saveSettings, { body: { version, settings: { scales: [named] } } })).toMatchObject(
      {
        status: 400,
      },
    );
    await saved({ practiceScale: false });
    await until(() => !homeDevices().scales.has('practice'));
    expect(heard.at(-1)).toMatchObject({ scale: 'practice', state: 'away' });
    stop();
  });

  it('marks its weights: a stage is not closed with one, and is once it was weighed on a real scale', async () => {
    const { breakdown } = await startHake(kitchen, tobin);
    const params = { breakdownId: breakdown.id };
    const [[piece, tray, g]] = hakePieces as [(typeof hakePieces)[number]];
    for (const [other, its, mass] of hakePieces.slice(1))
      await must(tobin, api.bench.weigh, { params, body: takeBody(other, its, mass) });
    const practised = await must(tobin, api.bench.weigh, {
      params,
      body: { ...takeBody(piece, tray, g), scale: 'practice' },
    });
    expect((await must(tobin, api.bench.read, { params })).weighings.at(-1)).toMatchObject({ scale: 'practice' });
    const close = () => tobin.ask(api.bench.close, { params, body: { unbalancedReason: null } });
    expect(await close()).toMatchObject({ status: 409, body: { code: 'practice_weights' } });
    await must(tobin, api.bench.weigh, { params, body: takeBody(piece, tray, g, practised.id) });
    expect((await close()).status).toBe(200);
  });

  it('and what was only practised goes back whole, as nothing else that was weighed does', async () => {
    const { breakdown, delivery } = await startHake(kitchen, tobin);
    const params = { breakdownId: breakdown.id };
    const [[piece, tray, g]] = hakePieces as [(typeof hakePieces)[number]];
    await must(tobin, api.bench.weigh, { params, body: { ...takeBody(piece, tray, g), scale: 'practice' } });
    const real = await must(tobin, api.bench.weigh, { params, body: takeBody('head', 'stock', 481) });
    expect(await tobin.ask(api.bench.cancel, { params, body: {} })).toMatchObject({ status: 409 });
    await must(tobin, api.bench.weigh, { params, body: { kind: 'undo', replaces: real.id, at: real.at } });
    await must(tobin, api.bench.cancel, { params, body: {} });
    const lot = await must(tobin, api.larder.read, { params: { lotId: delivery.lotId } });
    expect(lot.freeMg).toBe(lot.massMg);
  });
});

it('what the start command names stands in one house, until that house names its own', async () => {
  const [first, second] = [await scaleThere(), await scaleThere()];
  const other = await openTestKitchen({ scale: `bench=${first}`, probe: '127.0.0.1:9' });
  try {
    const ours = await other.signIn(other.personOf('Maren Ostle'));
    const theirs = await other.signIn(other.personOf('Maren Ostle', other.other));
    const at = async (tablet: Tablet) => {
      const { scales, probe } = await must(tablet, api.house.devices, {});
      return { bench: scales.find((s) => s.id === 'bench')?.address, probe };
    };
    expect(await at(ours)).toEqual({ bench: first, probe: '127.0.0.1:9' });
    expect(await at(theirs)).toEqual({ bench: null, probe: null });
    const { version } = await must(ours, api.house.read, {});
    const bench = { id: 'bench', name: 'Bench', ...plate, address: second };
    await must(ours, api.house.saveSettings, {
      body: { version, settings: { scales: [bench], probeAt: '127.0.0.1:8' } },
    });
    await until(async () => (await at(ours)).bench === second);
    expect(await at(ours)).toEqual({ bench: second, probe: '127.0.0.1:8' });
    expect(await at(theirs)).toEqual({ bench: null, probe: null });
  } finally {
    await other.stop();
  }
});
