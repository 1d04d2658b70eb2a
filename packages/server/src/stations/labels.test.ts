import { once } from 'node:events';
import { type AddressInfo, createServer, type Socket } from 'node:net';
import { api } from '@zabrik/contract';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { closedHake, must } from '../testing/work.ts';

/** A printer that takes a job and says nothing until it is told to. */
class PatientPrinter {
  readonly #server = createServer((socket) => {
    socket.on('error', () => undefined);
    socket.once('data', () => {
      this.jobs += 1;
      this.#line = socket;
      this.#came?.();
    });
  });
  #line: Socket | undefined;
  #came: (() => void) | undefined;
  jobs = 0;

  async open(): Promise<string> {
    this.#server.listen(0, '127.0.0.1');
    await once(this.#server, 'listening');
    return `127.0.0.1:${(this.#server.address() as AddressInfo).port}`;
  }
  job = (): Promise<void> =>
    new Promise((resolve) => {
      this.#came = resolve;
    });
  say(text: string): void {
    this.#line?.end(text);
  }
  close(): void {
    this.#server.close();
  }
}

const printer = new PatientPrinter();
let kitchen: TestKitchen;
let ines: Tablet;
beforeAll(async () => {
  kitchen = await openTestKitchen({ printer: await printer.open() });
  ines = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
});
afterAll(async () => {
  await kitchen.stop();
  printer.close();
});

const made = async (): Promise<string> => {
  const [lot] = (await closedHake(kitchen, ines)).closed.lots;
  if (lot === undefined) throw new Error('nothing was made');
  return lot.lotId;
};
const body = (lotId: string, copies = 1) => ({ body: { lots: [{ lotId, copies }], size: '57x32' as const } });
const labelsOf = async (lotId: string) =>
  (await must(ines, api.larder.read, { params: { lotId } })).events.filter((e) => e.kind === 'label').length;

describe('printing labels', () => {
  it('locks nothing while the printer takes its time, and is written down when it is done', async () => {
    const lotId = await made();
    const key = uuidv7();
    const came = printer.job();
    const printing = ines.ask(api.larder.printLabels, body(lotId), key);
    await came;
    // the lot is worked with meanwhile: this would wait for a row that is locked
    expect(
      await ines.ask(api.larder.keep, {
        params: { lotId },
        body: { kind: 'reserve', reservedFor: 'Friday', massMg: null },
      }),
    ).toMatchObject({ status: 200 });
    expect(await labelsOf(lotId)).toBe(0);
    printer.say('done job-1\n');
    expect(await printing).toMatchObject({ status: 200, body: { job: 'job-1', labels: 1, reprints: 0 } });
    expect(await labelsOf(lotId)).toBe(1);
    // the answer was lost and the key comes again: nothing is printed twice
    const jobs = printer.jobs;
    expect(await ines.ask(api.larder.printLabels, body(lotId), key)).toMatchObject({ body: { job: 'job-1' } });
    expect([printer.jobs, await labelsOf(lotId)]).toEqual([jobs, 1]);
  });

  it('is not written down when the printer fails', async () => {
    const lotId = await made();
    const came = printer.job();
    const printing = ines.ask(api.larder.printLabels, body(lotId));
    await came;
    printer.say('out of paper\n');
    expect(await printing).toMatchObject({ status: 503, body: { code: 'printer_away' } });
    expect(await labelsOf(lotId)).toBe(0);
  });

  it('has a sane most', async () => {
    const lots = await Promise.all(Array.from({ length: 6 }, made));
    const reply = await ines.ask(api.larder.printLabels, {
      body: { lots: lots.map((lotId) => ({ lotId, copies: 99 })), size: '57x32' },
    });
    expect(reply).toMatchObject({ status: 400, body: { field: 'lots' } });
  });
});
