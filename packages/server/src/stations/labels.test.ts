import { once } from 'node:events';
import { type AddressInfo, createServer, type Socket } from 'node:net';
import { api, type Progress, progressSchema } from '@zabrik/contract';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { closedHake, must, received } from '../testing/work.ts';

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

/** What a screen hears of how far commands are. */
async function progressHeard(tablet: Tablet) {
  const stop = new AbortController();
  const response = await fetch(`${kitchen.base}/api/v1/live`, {
    headers: { cookie: tablet.cookie },
    signal: stop.signal,
  });
  const all: Progress[] = [];
  let told = (): void => undefined;
  const reading = (async () => {
    let rest = '';
    const decoder = new TextDecoder();
    for await (const chunk of response.body ?? []) {
      const blocks = (rest + decoder.decode(chunk as Uint8Array, { stream: true })).split('\n\n');
      rest = blocks.pop() ?? '';
      for (const block of blocks) {
        const data = /^event: progress\ndata: (.*)$/m.exec(block)?.[1];
        if (data !== undefined) all.push(progressSchema.parse(JSON.parse(data)));
      }
      told();
    }
  })().catch((error: unknown) => {
    if (!stop.signal.aborted) throw error;
  });
  return {
    all,
    until: async (enough: (all: readonly Progress[]) => boolean): Promise<void> => {
      while (!enough(all))
        await new Promise<void>((resolve) => {
          told = resolve;
        });
    },
    close: () => {
      stop.abort();
      void reading;
    },
  };
}

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

  it('says how far it is to the screens of its own house, and of no other', async () => {
    const lotId = await made();
    const key = uuidv7();
    const theirs = await kitchen.signIn(kitchen.personOf('Ines Calloway', kitchen.other));
    const [heard, others] = [await progressHeard(ines), await progressHeard(theirs)];
    const came = printer.job();
    const printing = ines.ask(api.larder.printLabels, body(lotId, 60), key);
    await came;
    await heard.until((all) => all.some((p) => p.done === p.of));
    printer.say('done job-2\n');
    expect(await printing).toMatchObject({ status: 200, body: { labels: 60 } });
    expect(heard.all.every((p) => p.command === key && p.of === 60)).toBe(true);
    const steps = heard.all.map((p) => p.done);
    expect(steps).toEqual([...steps].sort((a, b) => a - b));
    expect(steps.at(-1)).toBe(60);
    heard.close();
    // something of theirs comes after it on the same line: what was to be heard before has been heard by then
    const delivery = await received(kitchen, theirs, {}, kitchen.other);
    await theirs.ask(api.larder.printLabels, body(delivery.lotId)); // no printer stands in their house
    await others.until((all) => all.some((p) => p.of === 1 && p.done === 1));
    expect(others.all.filter((p) => p.command === key)).toEqual([]);
    others.close();
  });

  it('comes out once when the key comes again while it prints', async () => {
    const lotId = await made();
    const key = uuidv7();
    const before = printer.jobs;
    const came = printer.job();
    const first = ines.ask(api.larder.printLabels, body(lotId), key);
    await came;
    const again = ines.ask(api.larder.printLabels, body(lotId), key);
    // the second is at the server before the printer is done: others are answered that came after it
    for (let i = 0; i < 3; i++) await labelsOf(lotId);
    printer.say('done job-4\n');
    const answers = [await first, await again];
    expect(answers.map((a) => a.status)).toEqual([200, 200]);
    expect(answers[1]?.body).toEqual(answers[0]?.body);
    expect([printer.jobs - before, await labelsOf(lotId)]).toEqual([1, 1]);
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
