import { connect, type Socket } from 'node:net';
import type { ScaleReading } from '@zabrik/contract';
import { parseReading } from '@zabrik/devices';
import { Problem } from '../http/problem.ts';

const RETRY_MS = 1_000;
const ANSWER_MS = 1_000;
const SILENT_MS = 4_000;

/** Brings a scale's lines into the app: keeps the connection up, remembers the last reading, passes commands on. */
export class ScaleBridge {
  readonly #host: string;
  readonly #port: number;
  readonly #listeners = new Set<(reading: ScaleReading) => void>();
  #socket: Socket | undefined;
  #answers: ((line: string) => void)[] = [];
  #retry: NodeJS.Timeout | undefined;
  #closed = false;
  readonly id: string;
  latest: ScaleReading;

  constructor(id: string, host: string, port: number) {
    this.id = id;
    this.latest = { scale: id, state: 'away', grossMg: 0, tareMg: 0, netMg: 0, settled: 0, at: 0 };
    this.#host = host;
    this.#port = port;
    this.#open();
  }

  subscribe(listener: (reading: ScaleReading) => void): () => void {
    this.#listeners.add(listener);
    return () => {
      this.#listeners.delete(listener);
    };
  }

  /** Sends one command and waits for its answer. Errors `scale_away`; a refusal of the scale is worded by the caller. */
  command(line: string): Promise<{ readonly done: boolean; readonly why: string }> {
    return new Promise((resolve, reject) => {
      const socket = this.#socket;
      if (socket === undefined || this.latest.state === 'away') return reject(new Problem('scale_away'));
      const late = setTimeout(() => reject(new Problem('scale_away')), ANSWER_MS);
      this.#answers.push((answer) => {
        clearTimeout(late);
        resolve({ done: answer.startsWith('done'), why: answer.split(' ')[2] ?? '' });
      });
      socket.write(`${line}\n`);
    });
  }

  close(): void {
    this.#closed = true;
    clearTimeout(this.#retry);
    this.#socket?.destroy();
  }

  #say(reading: ScaleReading): void {
    this.latest = reading;
    for (const listener of this.#listeners) listener(reading);
  }

  #open(): void {
    const socket = connect(this.#port, this.#host);
    this.#socket = socket;
    socket.setEncoding('utf8').setNoDelay(true).setTimeout(SILENT_MS);
    let rest = '';
    socket.on('data', (chunk) => {
      const lines = (rest + String(chunk)).split('\n');
      rest = (lines.pop() ?? '').slice(-512);
      for (const line of lines) this.#hear(line);
    });
    socket.on('timeout', () => socket.destroy());
    socket.on('error', () => undefined);
    socket.on('close', () => {
      this.#socket = undefined;
      this.#answers = [];
      if (this.latest.state !== 'away') this.#say({ ...this.latest, state: 'away' });
      if (!this.#closed) this.#retry = setTimeout(() => this.#open(), RETRY_MS);
    });
  }

  #hear(line: string): void {
    if (line.startsWith('done') || line.startsWith('refused')) {
      this.#answers.shift()?.(line);
      return;
    }
    const reading = parseReading(line);
    if (reading === undefined) return;
    const { state, grossMg, tareMg, netMg, settled } = reading;
    this.#say({ scale: this.id, state, grossMg, tareMg, netMg, settled, at: Date.now() });
  }
}
