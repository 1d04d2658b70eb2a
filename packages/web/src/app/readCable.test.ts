import { act, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { house } from '../testing/kitchen.ts';
import { FakePort } from '../testing/serialPort.ts';
import { cablesHere, keepCable, keptCable } from './cable.ts';
import { chooseScale, ownScale, useReadingOf } from './live.ts';
import { goOn, letGo, readOver, useCable } from './readCable.ts';

const { scales } = house;
const [bench] = scales;
const cable = { scaleId: bench.id, baudRate: 4800 };

let port: FakePort;
let picked: () => Promise<FakePort>;
beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
  port = new FakePort();
  picked = () => Promise.resolve(port);
  Object.defineProperty(navigator, 'serial', {
    configurable: true,
    value: { requestPort: () => picked(), getPorts: () => Promise.resolve([port]) },
  });
  chooseScale(bench.id);
});
afterEach(async () => {
  await letGo();
  vi.useRealTimers();
  Reflect.deleteProperty(navigator, 'serial');
});

const seen = () => renderHook(() => ({ line: useCable(), reading: useReadingOf(bench.id) })).result;
const passed = (ms: number): Promise<void> => act(async () => void (await vi.advanceTimersByTimeAsync(ms)));

describe('a scale on this tablet’s own cable', () => {
  it('is read in pieces of lines, at rest where the line says so, and away when it falls silent', async () => {
    const now = seen();
    await act(() => readOver(cable, scales));
    await passed(0);
    expect(port.baudRate).toBe(4800);
    port.says('ST,GS,+  1.2');
    port.says('34kg\r\nhello\r\n');
    await passed(0);
    expect(now.current.reading).toMatchObject({ scale: bench.id, state: 'steady', netMg: 1_234_000 });
    expect(now.current.line).toMatchObject({ is: 'reading', cable });
    port.says('US,GS,+  1.300kg\r\n');
    await passed(0);
    expect(now.current.reading).toMatchObject({ state: 'moving', netMg: 1_300_000 });
    await passed(2_100);
    expect(now.current.reading?.state).toBe('away');
    expect(now.current.line.is).toBe('silent');
  });

  it('tares and sets its zero on this tablet, and says why it does not', async () => {
    const now = seen();
    await act(() => readOver(cable, scales));
    port.says('US,GS,+  0.200kg\r\n');
    await passed(0);
    const scale = ownScale(bench.id);
    expect(scale?.tell('tare')).toBe('The pan is still moving. Let it rest, then try again.');
    port.says('ST,GS,+  0.200kg\r\n');
    await passed(0);
    act(() => void expect(scale?.tell('tare')).toBeUndefined());
    expect(now.current.reading).toMatchObject({ netMg: 0, tareMg: 200_000, grossMg: 200_000 });
    port.says('ST,GS,+  0.700kg\r\n');
    await passed(0);
    expect(now.current.reading).toMatchObject({ netMg: 500_000 });
  });

  it('goes on after a reload without asking, and only for a scale the house still has', async () => {
    await act(() => readOver(cable, scales));
    expect(keptCable()).toEqual(cable);
    await letGo();
    expect(ownScale(bench.id)).toBeUndefined();
    keepCable(cable);
    const now = seen();
    await act(() => goOn(cable, scales));
    port.says('ST,GS,+  0.250kg\r\n');
    await passed(0);
    expect(now.current.reading).toMatchObject({ netMg: 250_000 });
    expect(port.opened).toBe(2);
    // the same again opens nothing anew; another plate does; a scale that is gone lets go
    await act(() => goOn(cable, scales));
    expect(port.opened).toBe(2);
    const [, ...others] = scales;
    await act(() => goOn(cable, [{ ...bench, maxMg: bench.maxMg * 2 }, ...others]));
    await passed(0);
    expect(port.opened).toBe(3);
    await act(() => goOn(cable, [{ ...bench, id: 'other' }]));
    expect(keptCable()).toBeUndefined();
    expect(ownScale(bench.id)).toBeUndefined();
  });

  it('is tried again when its plug was drawn or another tab has it', async () => {
    port.inUse = true;
    const now = seen();
    await act(() => readOver(cable, scales));
    await passed(0);
    expect(now.current.line.is).toBe('lost');
    port.inUse = false;
    await passed(2_100);
    port.says('ST,GS,+  0.100kg\r\n');
    await passed(0);
    expect(now.current.line.is).toBe('reading');
    port.pull();
    await passed(0);
    expect(now.current.line.is).toBe('lost');
    await passed(2_100);
    port.says('ST,GS,+  0.150kg\r\n');
    await passed(0);
    expect(now.current.reading).toMatchObject({ state: 'steady', netMg: 150_000 });
  });

  it('is not kept where no line was picked', async () => {
    picked = () => Promise.reject(new Error('No port selected by the user.'));
    await act(() => readOver(cable, scales));
    expect(keptCable()).toBeUndefined();
    expect(port.opened).toBe(0);
  });

  it('is offered only where the browser has it', () => {
    expect(cablesHere()).toBe(true);
    Reflect.deleteProperty(navigator, 'serial');
    expect(cablesHere()).toBe(false);
  });
});
