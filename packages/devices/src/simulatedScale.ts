import { PanPhysics } from './panPhysics.ts';
import { formatReading } from './scaleLine.ts';
import { serveLines } from './serveLines.ts';

export interface SimulatedScaleSettings {
  readonly host: string;
  /** 0 takes a free one. */
  readonly port: number;
  readonly name?: string;
  readonly intervalMg: number;
  readonly maxMg: number;
  readonly lagMs: number;
  readonly restMs: number;
  readonly normal: () => number;
}

const TICK_MS = 40;

/**
 * A bench scale that exists only as a TCP server on loopback. Every host connected hears each changed reading, and one a second
 * while nothing changes. What a host sends is read line by line; what cannot be read is answered `refused`.
 */
export async function startSimulatedScale(
  settings: SimulatedScaleSettings,
): Promise<{ readonly port: number; stop(): Promise<void> }> {
  const pan = new PanPhysics({ ...settings, noiseMg: settings.intervalMg * 1.5 }, settings.normal);
  let count = 0;
  let last = '';
  let lastSentAt = 0;
  const plate = `plate name=${settings.name ?? 'bench'} class=III e=${settings.intervalMg} max=${settings.maxMg}`;

  const obey = (line: string): string => {
    const [command = '', argument] = line.trim().split(/\s+/);
    const answer = (result: string): string => (result === 'done' ? `done ${command}` : `refused ${command} ${result}`);
    switch (command) {
      case 'plate':
        return plate;
      case 'read':
        last = '';
        return 'done read';
      case 'tare':
        return answer(pan.tare());
      case 'untare':
        return answer(pan.untare());
      case 'zero':
        return answer(pan.zero());
      case 'load':
        if (argument === undefined || !/^\d{1,10}$/.test(argument)) return 'refused load not-a-mass';
        pan.load(Number(argument));
        return 'done load';
      default:
        return 'refused unknown';
    }
  };

  const line = await serveLines({
    ...settings,
    hello: plate,
    obey,
    came: () => {
      last = '';
    },
  });
  let before = performance.now();
  const timer = setInterval(() => {
    const now = performance.now();
    const reading = pan.tick(now - before);
    before = now;
    const face = JSON.stringify(reading);
    if (face === last && now - lastSentAt < 1_000) return;
    last = face;
    lastSentAt = now;
    count += 1;
    line.say(formatReading({ ...reading, count, intervalMg: settings.intervalMg }));
  }, TICK_MS);
  return {
    port: line.port,
    stop: () => {
      clearInterval(timer);
      return line.stop();
    },
  };
}
