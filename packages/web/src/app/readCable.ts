/** Reads a scale over this device's own serial line, where the browser has Web Serial. Read here exactly as the bridge reads one. */
import type { House } from '@zabrik/contract';
import { Lines, type Plate, readSerialLine, SCALE_SILENT_MS, SerialScale, scaleRefusals } from '@zabrik/devices/serial';
import { useSyncExternalStore } from 'react';
import { type Cable, keepCable, keptCable } from './cable.ts';
import { hearOwn, holdOwn } from './live.ts';

const AGAIN_MS = 2_000;
const LOOK_MS = 500;

/** How it stands with the line: nothing is read, it is read, it is silent, or it could not be opened. */
export interface CableState {
  readonly cable: Cable | undefined;
  readonly is: 'none' | 'reading' | 'silent' | 'lost';
}

let now: CableState = { cable: undefined, is: 'none' };
const listeners = new Set<() => void>();
const stands = (next: CableState): void => {
  if (next.is === now.is && next.cable === now.cable) return;
  now = next;
  for (const listener of listeners) listener();
};
export const useCable = (): CableState =>
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => {
        listeners.delete(listener);
      };
    },
    () => now,
  );

let stop: () => Promise<void> = () => Promise.resolve();
/** The plate it is read by. */
let by: Plate | undefined;

/** Reads until it is told to stop; a line that is lost is opened again as long as the browser still has it. */
function begin(cable: Cable, plate: Plate, first: SerialPort | undefined): void {
  const { scaleId: scale } = cable;
  by = plate;
  const pan = new SerialScale(plate);
  let heardAt = Number.NEGATIVE_INFINITY;
  let over = false;
  let reader: ReadableStreamDefaultReader<Uint8Array> | undefined;
  let again: ReturnType<typeof setTimeout> | undefined;
  let last = '';
  const say = (): void => {
    const silent = performance.now() - heardAt > SCALE_SILENT_MS;
    const reading = { ...pan.reading(), ...(silent ? { state: 'away' as const } : {}) };
    const face = JSON.stringify(reading);
    if (face !== last) hearOwn({ scale, ...reading, at: Date.now() });
    last = face;
    if (now.is !== 'lost' || !silent) stands({ cable, is: silent ? 'silent' : 'reading' });
  };
  const tell = (command: 'tare' | 'untare' | 'zero'): string | undefined => {
    const done = pan[command]();
    say();
    return scaleRefusals.get(done);
  };
  const read = async (port: SerialPort): Promise<void> => {
    await port.open({ baudRate: cable.baudRate });
    try {
      if (over || port.readable === null) return;
      reader = port.readable.getReader();
      const lines = new Lines();
      const letters = new TextDecoder('latin1');
      for (;;) {
        const { value, done } = await reader.read();
        if (done) return;
        for (const line of lines.take(letters.decode(value, { stream: true }))) {
          const said = readSerialLine(line);
          if (said === undefined) continue;
          heardAt = performance.now();
          pan.take(said, heardAt);
          say();
        }
      }
    } finally {
      reader?.releaseLock();
      reader = undefined;
      await port.close();
    }
  };
  const open = async (port: SerialPort | undefined): Promise<void> => {
    try {
      const [known] = port === undefined ? await navigator.serial.getPorts() : [port];
      if (known !== undefined) await read(known);
    } catch {
      // in use by another tab, or pulled out: tried again
    }
    if (over) return;
    stands({ cable, is: 'lost' });
    again = setTimeout(() => void open(port), AGAIN_MS);
  };
  holdOwn({ id: scale, tell });
  const look = setInterval(say, LOOK_MS);
  const reads = open(first);
  stop = async () => {
    over = true;
    clearTimeout(again);
    clearInterval(look);
    await reader?.cancel().catch(() => undefined);
    await reads;
    stands({ cable: undefined, is: 'none' });
    stop = () => Promise.resolve();
  };
}

function plateOf(scales: House['scales'], scaleId: string): Plate | undefined {
  const scale = scales.find((s) => s.id === scaleId);
  return scale && { accuracyClass: scale.accuracyClass, intervalMg: scale.intervalMg, maxMg: scale.maxMg };
}

/** Asks which line, which needs a touch just before, and reads the scale on it from now on. Nothing happens when none is picked. */
export async function readOver(cable: Cable, scales: House['scales']): Promise<void> {
  const plate = plateOf(scales, cable.scaleId);
  if (plate === undefined) return;
  const port = await navigator.serial.requestPort().catch(() => undefined);
  if (port === undefined) return;
  await stop();
  keepCable(cable);
  begin(cable, plate, port);
}

/** What this device read before a reload, by the plate as the house has it now. A scale that the house does not have any more is let go. */
export async function goOn(cable: Cable, scales: House['scales']): Promise<void> {
  const plate = plateOf(scales, cable.scaleId);
  if (plate === undefined) await letGo();
  else if (now.cable?.scaleId !== cable.scaleId || JSON.stringify(by) !== JSON.stringify(plate)) {
    await stop();
    // taken up or let go by somebody else meanwhile
    if (now.cable === undefined && keptCable()?.scaleId === cable.scaleId) begin(cable, plate, undefined);
  }
}

export async function letGo(): Promise<void> {
  keepCable(undefined);
  await stop();
  holdOwn(undefined);
}
