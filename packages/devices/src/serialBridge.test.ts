/** A scale on a serial line: its lines read without knowing whose they are, and bridged as our own. The line itself is serialport's mock. */
import { once } from 'node:events';
import { connect, type Socket } from 'node:net';
import { createInterface } from 'node:readline';
import fc from 'fast-check';
import { SerialPortMock } from 'serialport';
import { afterEach, describe, expect, it } from 'vitest';
import { parsePlate, parseReading, type ReadingLine } from './scaleLine.ts';
import { startSerialBridge } from './serialBridge.ts';
import { readSerialLine } from './serialLine.ts';
import { SerialScale } from './serialScale.ts';

const plate = { accuracyClass: 'III', intervalMg: 1_000, maxMg: 15_000_000 } as const;

describe('a line of a serial scale', () => {
  it.each([
    ['ST,GS,+  1.234kg', 1_234_000, true],
    ['US,NT,-  0.020 kg', -20_000, false],
    ['S S      812.5 g', 812_500, true],
    ['S D      812.5 g', 812_500, false],
    ['  668 g', 668_000, undefined],
    ['+0.500 lb', 226_796, undefined],
    ['ST  8.00 oz', 226_796, true],
    ['\u0002  1.000kg\u0003', 1_000_000, undefined],
    ['? 12.0 g', 12_000, false],
    ['-0 g', 0, undefined],
  ])('%j is %s mg', (line, massMg, stable) => {
    expect(readSerialLine(line)).toEqual({ massMg, stable, over: false, under: false });
  });

  it('says over and under, and nothing of what it is not sure about', () => {
    expect(readSerialLine('OL')).toMatchObject({ over: true, massMg: undefined });
    expect(readSerialLine('++++++')).toMatchObject({ over: true });
    expect(readSerialLine('UL')).toMatchObject({ under: true, massMg: undefined });
    for (const line of ['', '1234', 'G 1.2kg T 0.4kg', 'hello', 'kg', '12 kgs', 'N 0x1F'])
      expect(readSerialLine(line), line).toBeUndefined();
  });

  it('reads any mass back from grams and kilos', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 30_000 }), fc.boolean(), (g, kilos) => {
        expect(readSerialLine(kilos ? `ST,GS,+${(g / 1_000).toFixed(3)}kg` : `${g} g`)?.massMg).toBe(g * 1_000);
      }),
    );
  });
});

describe('a serial scale', () => {
  const said = (text: string) => {
    const read = readSerialLine(text);
    if (read === undefined) throw new Error(text);
    return read;
  };

  it('that says it rests rests at once, and counts each rest', () => {
    const scale = new SerialScale(plate);
    scale.take(said('ST 0 g'), 0);
    expect(scale.reading()).toMatchObject({ state: 'steady', settled: 1, netMg: 0 });
    scale.take(said('US 400 g'), 100);
    expect(scale.reading()).toMatchObject({ state: 'moving', settled: 1 });
    scale.take(said('ST 668 g'), 200);
    scale.take(said('ST 668 g'), 300);
    expect(scale.reading()).toMatchObject({ state: 'steady', settled: 2, netMg: 668_000 });
    // lifted and another put down between two lines
    scale.take(said('ST 812 g'), 400);
    expect(scale.reading()).toMatchObject({ state: 'steady', settled: 3, netMg: 812_000 });
  });

  it('that does not say so must have stood the same for three lines and four tenths of a second', () => {
    const scale = new SerialScale(plate);
    const at = (ms: number) => {
      scale.take(said('668 g'), ms);
      return scale.reading().state;
    };
    expect([0, 100, 399].map(at)).toEqual(['moving', 'moving', 'moving']);
    expect(at(400)).toBe('steady');
    const quick = new SerialScale(plate);
    quick.take(said('668 g'), 0);
    quick.take(said('668 g'), 5_000);
    expect(quick.reading().state).toBe('moving');
  });

  it('tares at rest, zeroes near nothing, and says what is beyond it', () => {
    const scale = new SerialScale(plate);
    scale.take(said('US 412 g'), 0);
    expect(scale.tare()).toBe('moving');
    scale.take(said('ST 412 g'), 100);
    expect(scale.tare()).toBe('done');
    expect(scale.zero()).toBe('too-far');
    scale.take(said('ST 1080 g'), 200);
    expect(scale.reading()).toMatchObject({ grossMg: 1_080_000, tareMg: 412_000, netMg: 668_000 });
    scale.untare();
    scale.take(said('ST 0.004 kg'), 300);
    expect(scale.zero()).toBe('done');
    expect(scale.reading()).toMatchObject({ grossMg: 0 });
    expect(scale.tare()).toBe('nothing');
    scale.take(said('ST 15.010 kg'), 400);
    expect(scale.reading().state).toBe('over');
    scale.take(said('OL'), 500);
    expect(scale.reading().state).toBe('over');
    scale.take(said('UL'), 600);
    expect(scale.reading().state).toBe('under');
  });
});

describe('the bridge', () => {
  const open: { stop(): Promise<void> }[] = [];
  const sockets: Socket[] = [];
  afterEach(async () => {
    for (const s of sockets.splice(0)) s.destroy();
    for (const b of open.splice(0)) await b.stop();
    SerialPortMock.binding.reset();
  });

  async function bridged() {
    const PATH = '/dev/ttyMOCK0';
    SerialPortMock.binding.createPort(PATH);
    const ports: SerialPortMock[] = [];
    const bridge = await startSerialBridge({
      host: '127.0.0.1',
      port: 0,
      name: 'bench',
      plate,
      open: () => {
        const line = new SerialPortMock({ path: PATH, baudRate: 9_600 });
        ports.push(line);
        return line;
      },
      told: () => undefined,
    });
    open.push(bridge);
    const socket = connect(bridge.port, '127.0.0.1');
    sockets.push(socket);
    await once(socket, 'connect');
    const heard: string[] = [];
    createInterface({ input: socket }).on('line', (line) => heard.push(line));
    const first = ports[0];
    if (first !== undefined && !first.isOpen) await once(first, 'open');
    const readings = (): ReadingLine[] => heard.flatMap((line) => parseReading(line) ?? []);
    const say = (text: string): void => ports.at(-1)?.port?.emitData(Buffer.from(text, 'latin1'));
    return { heard, readings, say, socket, ports };
  }

  it('says its plate, then what the scale shows, in our lines, and takes our commands', async () => {
    const { heard, readings, say, socket } = await bridged();
    await expect.poll(() => heard.map((l) => parsePlate(l))[0]).toEqual(plate);
    // in pieces, as a serial line comes
    say('ST,GS,+  0.4');
    say('12kg\r\nST,GS,+  0.412kg\r\n');
    await expect.poll(() => readings().at(-1)).toMatchObject({ state: 'steady', grossMg: 412_000, settled: 1 });
    socket.write('tare\n');
    await expect.poll(() => heard).toContain('done tare');
    say('US,GS,+  0.900kg\r\nST,GS,+  1.080kg\r\n');
    await expect
      .poll(() => readings().at(-1))
      .toMatchObject({ state: 'steady', tareMg: 412_000, netMg: 668_000, settled: 2, intervalMg: 1_000 });
    socket.write('load 5\n');
    await expect.poll(() => heard).toContain('refused unknown');
  });

  it('is silent while the scale is: nothing old is said to be there; a line that was lost is opened again', async () => {
    const { readings, say, ports } = await bridged();
    say('ST 668 g\r\n');
    await expect.poll(() => readings().length).toBeGreaterThan(0);
    await new Promise((done) => setTimeout(done, 1_800));
    const before = readings().length;
    await new Promise((done) => setTimeout(done, 1_200));
    expect(readings().length).toBe(before);
    ports[0]?.close();
    await expect.poll(() => ports.length, { timeout: 20_000 }).toBe(2);
    const again = ports[1];
    if (again !== undefined && !again.isOpen) await once(again, 'open');
    say('ST 812 g\r\n');
    await expect.poll(() => readings().at(-1)).toMatchObject({ netMg: 812_000 });
  });
});
