import { formatReading, type Plate } from './scaleLine.ts';
import { Lines, readSerialLine } from './serialLine.ts';
import { SCALE_SILENT_MS, SerialScale } from './serialScale.ts';
import { serveLines } from './serveLines.ts';

/** A serial line as the bridge needs it: `serialport`'s own, its mock, or anything that gives text. */
export interface SerialLine {
  on(event: 'data', heard: (chunk: Buffer) => void): unknown;
  on(event: 'close' | 'open', heard: () => void): unknown;
  on(event: 'error', heard: (error: Error) => void): unknown;
}

export interface SerialBridgeSettings {
  readonly host: string;
  /** 0 takes a free one. */
  readonly port: number;
  readonly name: string;
  /** As the plate of the scale says: its line does not. */
  readonly plate: Plate;
  /** Opens the line; called again when it was lost. */
  readonly open: () => SerialLine;
  readonly told: (words: string) => void;
}

const AGAIN_MS = 2_000;
const EVERY_MS = 1_000;

/** A scale on a serial line, as one that speaks our lines over TCP (docs/devices.md). While it is silent, nothing is said: whoever listens takes it for away. */
export async function startSerialBridge({ host, port, name, plate, open, told }: SerialBridgeSettings): Promise<{
  readonly port: number;
  stop(): Promise<void>;
}> {
  const scale = new SerialScale(plate);
  let heardAt = Number.NEGATIVE_INFINITY;
  let last = '';
  let lastAt = 0;
  let count = 0;
  const answer = (command: string, result: string): string =>
    result === 'done' ? `done ${command}` : `refused ${command} ${result}`;
  const hello = `plate name=${name} class=${plate.accuracyClass} e=${plate.intervalMg} max=${plate.maxMg}`;
  const served = await serveLines({
    host,
    port,
    hello,
    obey: (line) => {
      const command = line.trim().split(/\s+/)[0] ?? '';
      switch (command) {
        case 'plate':
          return hello;
        case 'read':
          last = '';
          return 'done read';
        case 'tare':
          return answer(command, scale.tare());
        case 'untare':
          return answer(command, scale.untare());
        case 'zero':
          return answer(command, scale.zero());
        default:
          return 'refused unknown';
      }
    },
    came: () => {
      last = '';
    },
  });
  const say = (): void => {
    const now = performance.now();
    if (now - heardAt > SCALE_SILENT_MS) return;
    const reading = scale.reading();
    const face = JSON.stringify(reading);
    if (face === last && now - lastAt < EVERY_MS) return;
    last = face;
    lastAt = now;
    count += 1;
    served.say(formatReading({ ...reading, count, intervalMg: plate.intervalMg }));
  };
  const timer = setInterval(say, 100);

  let stopped = false;
  let again: NodeJS.Timeout | undefined;
  const connect = (): void => {
    const lines = new Lines();
    const line = open();
    line.on('open', () => told(`${name}: the line is open`));
    line.on('data', (chunk) => {
      for (const part of lines.take(chunk.toString('latin1'))) {
        const read = readSerialLine(part);
        if (read === undefined) continue;
        heardAt = performance.now();
        scale.take(read, heardAt);
        say();
      }
    });
    const lost = (why: string): void => {
      if (stopped || again !== undefined) return;
      told(`${name}: ${why}; tried again in ${AGAIN_MS / 1_000} s`);
      again = setTimeout(() => {
        again = undefined;
        connect();
      }, AGAIN_MS);
    };
    line.on('error', (error) => lost(error.message));
    line.on('close', () => lost('the line was lost'));
  };
  connect();
  return {
    port: served.port,
    stop: () => {
      stopped = true;
      clearInterval(timer);
      clearTimeout(again);
      return served.stop();
    },
  };
}
