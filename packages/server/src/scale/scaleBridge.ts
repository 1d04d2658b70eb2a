import { connect, type Socket } from 'node:net';
import type { ScaleReading } from '@zabrik/contract';
import { parseReading } from '@zabrik/devices';
import { Problem } from '../http/problem.ts';

const RETRY_MS = 1_000;
const ANSWER_MS = 1_000;
const SILENT_MS = 4_000;
/** A line of a scale is under a hundred characters. */
const LONGEST_LINE = 512;
/** A scale says its weight some ten times a second, a kilobyte or so. One that says more than this in a tenth of one is not read until that is over. */
const MOST_BYTES = 16_384;
const WINDOW_MS = 100;

interface Command {
  readonly hear: (line: string) => void;
  readonly lost: () => void;
}

/** Brings a scale's lines into the app: keeps the connection up, remembers the last reading, passes commands on. */
export class ScaleBridge {
  readonly host: string;
  readonly port: number;
  readonly #listeners = new Set<(reading: ScaleReading) => void>();
  #socket: Socket | undefined;
  #asked: Command[] = [];
  #retry: NodeJS.Timeout | undefined;
  #closed = false;
  readonly id: string;
  latest: ScaleReading;

  constructor(id: string, host: string, port: number) {
    this.id = id;
    this.latest = { scale: id, state: 'away', grossMg: 0, tareMg: 0, netMg: 0, settled: 0, at: 0 };
    this.host = host;
    this.port = port;
    this.#open();
  }

  subscribe(listener: (reading: ScaleReading) => void): () => void {
    this.#listeners.add(listener);
    return () => {
      this.#listeners.delete(listener);
    };
  }

  /**
   * Sends one command and waits for its answer. Answers carry no number and come in order: when one is lost, nobody can tell any more which
   * answer is whose, so the line is closed and opened anew. Errors `scale_away`; a refusal of the scale is worded by the caller.
   */
  command(line: string): Promise<{ readonly done: boolean; readonly why: string }> {
    return new Promise((resolve, reject) => {
      const socket = this.#socket;
      if (socket === undefined || this.latest.state === 'away') return reject(new Problem('scale_away'));
      const lost = (): void => {
        clearTimeout(late);
        reject(new Problem('scale_away'));
      };
      const late = setTimeout(() => socket.destroy(), ANSWER_MS);
      this.#asked.push({
        lost,
        hear: (answer) => {
          clearTimeout(late);
          resolve({ done: answer.startsWith('done'), why: answer.split(' ')[2] ?? '' });
        },
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
    const socket = connect(this.port, this.host);
    this.#socket = socket;
    socket.setEncoding('utf8').setNoDelay(true).setTimeout(SILENT_MS);
    let rest = '';
    let bytes = 0;
    let since = 0;
    let breath: NodeJS.Timeout | undefined;
    socket.on('data', (chunk) => {
      const lines = (rest + String(chunk)).split('\n');
      rest = (lines.pop() ?? '').slice(-LONGEST_LINE);
      this.#hear(lines);
      const now = performance.now();
      if (now - since > WINDOW_MS) {
        since = now;
        bytes = 0;
      }
      bytes += chunk.length;
      if (bytes <= MOST_BYTES) return;
      socket.pause();
      breath = setTimeout(() => socket.resume(), WINDOW_MS);
    });
    socket.on('timeout', () => socket.destroy());
    socket.on('error', () => undefined);
    socket.on('close', () => {
      clearTimeout(breath);
      this.#socket = undefined;
      for (const { lost } of this.#asked.splice(0)) lost();
      if (this.latest.state !== 'away') this.#say({ ...this.latest, state: 'away' });
      if (!this.#closed) this.#retry = setTimeout(() => this.#open(), RETRY_MS);
    });
  }

  /** Every answer, and of the readings that came together the newest: the pan lies as that one says. */
  #hear(lines: readonly string[]): void {
    for (const line of lines)
      if (line.startsWith('done') || line.startsWith('refused')) this.#asked.shift()?.hear(line);
    const reading = lines.findLast((line) => parseReading(line) !== undefined);
    const read = reading === undefined ? undefined : parseReading(reading);
    if (read === undefined) return;
    const { state, grossMg, tareMg, netMg, settled } = read;
    this.#say({ scale: this.id, state, grossMg, tareMg, netMg, settled, at: Date.now() });
  }
}
