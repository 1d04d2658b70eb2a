/** A whole kitchen as real processes for tests: its own PostgreSQL cluster, the seeded demo, the simulated scale, the built server. */
import { type ChildProcess, execFileSync, spawn } from 'node:child_process';
import { createWriteStream, readFileSync } from 'node:fs';

const ROOT = new URL('..', import.meta.url).pathname;
export const PIN = '2468';

export interface KitchenOptions {
  /** Names the cluster under .zabrik/. */
  readonly cluster: string;
  /** Another folder for the cluster, as on a disk of its own. */
  readonly home?: string;
  /** Throw-away data may skip the disk; what is tested for survival may not. */
  readonly fsync: 'on' | 'off';
  readonly port: number;
  readonly breakdowns: number;
  /** No kitchen stands on it yet, no device beside it: this code sets it up. */
  readonly setUpCode?: string;
  /** How many kitchens share the cluster: it has lines for all of them. One when nothing is said. */
  readonly kitchens?: number;
}

export const SET_UP_CODE = 'KQ7M-4XWR';

/** Lines to the database that one server process may hold at most, with those left to whoever looks. */
const LINES_EACH = 27;
const LINES_OF_OTHERS = 8;

const firstLine = (child: ChildProcess, wanted: RegExp): Promise<readonly string[]> =>
  new Promise((resolve, reject) => {
    let text = '';
    child.stdout?.on('data', (chunk: Buffer) => {
      text += chunk.toString();
      const found = wanted.exec(text);
      if (found !== null) resolve(found);
    });
    child.once('exit', (code) => reject(new Error(`ended with ${code} before it was ready: ${text}`)));
  });

export class KitchenProcess {
  readonly #options: KitchenOptions;
  readonly #database: string;
  #server: ChildProcess | undefined;
  #scale: ChildProcess | undefined;
  #devices: NodeJS.ProcessEnv = {};
  port = 0;

  constructor(options: KitchenOptions, database = 'zabrik') {
    this.#options = options;
    this.#database = database;
  }

  /** The folder of its cluster. */
  get home(): string {
    return this.#options.home ?? `${ROOT}.zabrik/${this.#options.cluster}`;
  }

  /** The address of its database. */
  get url(): string {
    return this.db('url', this.#database).trim();
  }

  get base(): string {
    return `http://localhost:${this.port}`;
  }

  db(...args: string[]): string {
    const lines = LINES_EACH * (this.#options.kitchens ?? 1) + LINES_OF_OTHERS;
    const env = {
      ...process.env,
      DB_HOME: this.home,
      DB_FSYNC: this.#options.fsync,
      DB_CONNECTIONS: String(Math.max(60, lines)),
    };
    return execFileSync('scripts/db.sh', args, {
      cwd: ROOT,
      env,
      encoding: 'utf8',
      maxBuffer: 1_000_000_000, // a recount of hundreds of thousands of weights
      stdio: ['ignore', args[0] === 'url' || args[0] === 'psql' ? 'pipe' : 'ignore', 'inherit'],
    });
  }

  /** A fresh cluster with the demo in it; nothing runs on it yet. */
  makeData(): void {
    this.db('reset');
    execFileSync('node', ['packages/server/dist/seed.js'], {
      cwd: ROOT,
      env: this.#environment({ ZABRIK_DEMO_BREAKDOWNS: String(this.#options.breakdowns) }),
      stdio: ['ignore', 'ignore', 'inherit'],
    });
  }

  /** Another kitchen on the same cluster, with a copy of the same data. Only while nothing runs on it. */
  copy(port: number, database: string): KitchenProcess {
    this.db('psql', '-d', 'postgres', '-c', `create database ${database} template ${this.#database}`);
    return new KitchenProcess({ ...this.#options, port }, database);
  }

  /** A cluster with nothing in it. */
  makeCluster(): void {
    this.db('reset');
  }

  /** A machine with no kitchen on it, on the same cluster. */
  empty(port: number, database: string, setUpCode: string): KitchenProcess {
    this.db('psql', '-d', 'postgres', '-c', `create database ${database}`);
    return new KitchenProcess({ ...this.#options, port, setUpCode }, database);
  }

  async open(): Promise<void> {
    if (this.#options.setUpCode === undefined) await this.#startScale();
    await this.startServer();
  }

  async start(): Promise<void> {
    this.makeData();
    await this.open();
  }

  #environment(more: NodeJS.ProcessEnv = {}): NodeJS.ProcessEnv {
    return {
      ...process.env,
      DATABASE_URL: this.url,
      SESSION_SECRET: 'e'.repeat(48),
      PORT: String(this.port === 0 ? this.#options.port : this.port),
      WEB_DIST: 'packages/web/dist',
      LOG_LEVEL: 'error',
      ZABRIK_PROCESSES: String(this.#options.kitchens ?? 1),
      ...(this.#options.setUpCode === undefined
        ? { ZABRIK_SIMULATED: '1', ZABRIK_DEMO_PIN: PIN }
        : { ZABRIK_SETUP_CODE: this.#options.setUpCode }),
      ...more,
    };
  }

  async #startScale(): Promise<void> {
    this.#scale = spawn('node', ['packages/server/dist/scale.js'], {
      cwd: ROOT,
      env: { ...process.env, ZABRIK_SCALE_FAST: '1' },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    // the scales are said last
    const [, probe, printer, scale] = await firstLine(
      this.#scale,
      /probe listening (\S+)\s+printer listening (\S+)\s+scale listening (\S+)/,
    );
    this.#devices = { ZABRIK_PROBE: probe, ZABRIK_PRINTER: printer, ZABRIK_SCALE: scale };
  }

  /** Starts the server, or starts it again on the port it had. `more`: settings beside the usual ones, this time. */
  async startServer(more: NodeJS.ProcessEnv = {}): Promise<void> {
    this.#server = spawn('node', ['--enable-source-maps', 'packages/server/dist/main.js'], {
      cwd: ROOT,
      env: this.#environment({ ...this.#devices, ...more }),
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    // what it has to say about itself stands beside its cluster
    this.#server.stdout?.pipe(createWriteStream(`${this.home}/said.log`, { flags: 'a' }));
    this.port = Number((await firstLine(this.#server, /server listening (\d+)/))[1]);
  }

  /** Whatever can be looked up of the server while it runs. */
  get serverPid(): number {
    return this.#server?.pid ?? 0;
  }

  killServer(): Promise<void> {
    const server = this.#server;
    return new Promise((resolve) => {
      if (server === undefined || server.exitCode !== null || server.signalCode !== null) resolve();
      server?.once('exit', () => resolve());
      server?.kill('SIGKILL');
    });
  }

  /** kill -9 of the postmaster; its children find out by themselves. */
  killPostgres(): void {
    const pid = Number(readFileSync(`${this.home}/data/postmaster.pid`, 'utf8').split('\n')[0]);
    process.kill(pid, 'SIGKILL');
  }

  /** Ends server and scale. The cluster stands until `stop` or the `stop` of the kitchen it was copied from. */
  async close(): Promise<void> {
    const ended = [this.#server, this.#scale].map((child) =>
      child === undefined || child.exitCode !== null || child.signalCode !== null
        ? Promise.resolve()
        : new Promise((resolve) => child.once('exit', resolve)),
    );
    this.#server?.kill('SIGTERM');
    this.#scale?.kill('SIGTERM');
    await Promise.all(ended);
  }

  async stop(): Promise<void> {
    await this.close();
    this.db('stop');
  }
}

/** For what is made ready before something is tested: it ends only what never comes. */
export const PATIENT_MS = 120_000;
/** Whoever has no answer by then will not get one, however slow the machine. */
export const NEVER_MS = 180_000;
/** For what is sent again when nobody answers. */
const IMPATIENT_MS = 5_000;

export interface Session {
  readonly cookie: string;
  post(path: string, body: unknown, key: string, withinMs?: number): Promise<Response>;
  get(path: string): Promise<unknown>;
}

/** Signs someone in over HTTP, the way a tablet does. */
export async function signInOver(base: string, name: string): Promise<Session> {
  const signInOptions = (await (await fetch(`${base}/api/v1/houses/netloft/sign-in`)).json()) as {
    people: { id: string; name: string }[];
  };
  const personId = signInOptions.people.find((p) => p.name === name)?.id;
  const reply = await fetch(`${base}/api/v1/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: base },
    body: JSON.stringify({ personId, pin: PIN }),
  });
  if (!reply.ok) throw new Error(`sign-in: ${reply.status}`);
  const cookie =
    reply.headers
      .getSetCookie()
      .find((c) => c.startsWith('zabrik='))
      ?.split(';')[0] ?? '';
  return {
    cookie,
    post: (path, body, key, withinMs = IMPATIENT_MS) =>
      fetch(`${base}${path}`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', origin: base, cookie, 'idempotency-key': key },
        body: JSON.stringify(body),
        signal: AbortSignal.timeout(withinMs),
      }),
    get: async (path) => (await fetch(`${base}${path}`, { headers: { cookie } })).json(),
  };
}
