import { type Changed, changedSchema, type Progress, progressSchema, type Topic } from '@zabrik/contract';
import pg from 'pg';
import type { Logger } from 'pino';
import { z } from 'zod';

const CHANNEL = 'zabrik_changed';
/** What the database knows this line by. */
const LINE = 'zabrik live';
const GATHER_MS = 15;
const RETRY_MS = 500;

const said = z.discriminatedUnion('event', [
  z.object({ event: z.literal('changed'), data: changedSchema }),
  z.object({ event: z.literal('progress'), data: progressSchema }),
]);
const message = z.object({ house: z.string(), said });

const RESYNC = { event: 'resync', data: {} } as const;
/** What a house's screens are told: an event of the live line with its data. */
export type Said = z.output<typeof said> | typeof RESYNC;

type Listener = (said: Said) => void;

/**
 * Tells every open screen of a house what changed, across server processes, by LISTEN/NOTIFY.
 *
 * A NOTIFY inside a transaction makes all commits queue behind one lock, so it is sent after the commit, gathered for a blink.
 * A process that dies between the two loses the word, not the data: its own screens reconnect and read everything again, and
 * a process that starts tells all others to do the same.
 */
export class Announcer {
  readonly #databaseUrl: string;
  readonly #log: Logger;
  readonly #listeners = new Map<string, Set<Listener>>();
  readonly #waiting = new Map<string, { topics: Set<Topic>; ids: Set<string> }>();
  /** By command: only how far it is now is worth saying. */
  readonly #progress = new Map<string, { readonly house: string; readonly data: Progress }>();
  #client: pg.Client | undefined;
  #timer: NodeJS.Timeout | undefined;
  #retry: NodeJS.Timeout | undefined;
  /** One word after another: the connection takes one query at a time. */
  #sending: Promise<void> = Promise.resolve();
  #closed = false;

  constructor(databaseUrl: string, log: Logger) {
    this.#databaseUrl = databaseUrl;
    this.#log = log;
  }

  async start(): Promise<void> {
    await this.#listen();
    await this.#client?.query('select pg_notify($1, $2)', [CHANNEL, '*']);
  }

  announce(houseId: string, topics: readonly Topic[], ids: readonly string[] = []): void {
    const waiting = this.#waiting.get(houseId) ?? { topics: new Set<Topic>(), ids: new Set<string>() };
    for (const topic of topics) waiting.topics.add(topic);
    for (const id of ids) waiting.ids.add(id);
    this.#waiting.set(houseId, waiting);
    this.#soon();
  }

  /** Tells a house's screens how far a command is. */
  tell(houseId: string, progress: Progress): void {
    this.#progress.set(progress.command, { house: houseId, data: progress });
    this.#soon();
  }

  #soon(): void {
    this.#timer ??= setTimeout(() => {
      this.#timer = undefined;
      this.#sending = this.#sending.then(() => this.#send());
    }, GATHER_MS);
  }

  subscribe(houseId: string, listener: Listener): () => void {
    const listeners = this.#listeners.get(houseId) ?? new Set();
    this.#listeners.set(houseId, listeners.add(listener));
    return () => {
      listeners.delete(listener);
    };
  }

  async close(): Promise<void> {
    this.#closed = true;
    clearTimeout(this.#timer);
    clearTimeout(this.#retry);
    await this.#client?.end().catch(() => undefined);
  }

  async #send(): Promise<void> {
    const all: z.output<typeof message>[] = [];
    for (const [house, { topics, ids }] of this.#waiting) {
      const data: Changed = { topics: [...topics], ids: [...ids].slice(0, 50) };
      all.push({ house, said: { event: 'changed', data } });
    }
    for (const { house, data } of this.#progress.values()) all.push({ house, said: { event: 'progress', data } });
    this.#waiting.clear();
    this.#progress.clear();
    for (const one of all) {
      try {
        if (this.#client === undefined) throw new Error('not listening just now');
        await this.#client.query('select pg_notify($1, $2)', [CHANNEL, JSON.stringify(one)]);
      } catch (error) {
        this.#log.warn({ err: error }, 'could not announce a change; screens read again when they reconnect');
      }
    }
  }

  /** Opens the one line that listens. Nothing is left of a try that fails half-way. */
  async #listen(): Promise<void> {
    const client = new pg.Client({ connectionString: this.#databaseUrl, application_name: LINE });
    client.on('notification', ({ payload }) => this.#hear(payload ?? ''));
    client.on('error', (error) => this.#log.warn({ err: error }, 'live: connection lost'));
    client.on('end', () => {
      if (this.#client !== client) return;
      this.#client = undefined;
      this.#later();
    });
    try {
      await client.connect();
      // a word about a change need not wait for the disk: what it is about is there already
      await client.query('set synchronous_commit = off');
      await client.query(`listen ${CHANNEL}`);
    } catch (error) {
      void client.end().catch(() => undefined);
      throw error;
    }
    this.#client = client;
    if (this.#closed) await client.end();
  }

  #later(): void {
    if (this.#closed) return;
    clearTimeout(this.#retry);
    this.#retry = setTimeout(() => {
      this.#listen().then(
        () => this.#hear('*'), // what was said meanwhile is gone
        () => this.#later(),
      );
    }, RETRY_MS);
  }

  #hear(payload: string): void {
    if (payload === '*') {
      for (const listeners of this.#listeners.values()) for (const listener of listeners) listener(RESYNC);
      return;
    }
    const read = message.safeParse(JSON.parse(payload));
    if (!read.success) return;
    for (const listener of this.#listeners.get(read.data.house) ?? []) listener(read.data.said);
  }
}
