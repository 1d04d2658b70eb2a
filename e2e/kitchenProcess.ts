/** A whole kitchen as real processes for tests: its own PostgreSQL cluster, the seeded demo, the simulated scale, the built server. */
import { type ChildProcess, execFileSync, spawn } from 'node:child_process';
import { readFileSync } from 'node:fs';

const ROOT = new URL('..', import.meta.url).pathname;
export const PIN = '2468';

export interface KitchenOptions {
  /** Names the cluster under .zabrik/. */
  readonly cluster: string;
  /** Throw-away data may skip the disk; what is tested for survival may not. */
  readonly fsync: 'on' | 'off';
  readonly port: number;
  readonly breakdowns: number;
}

const firstLine = (child: ChildProcess, wanted: RegExp): Promise<string> =>
  new Promise((resolve, reject) => {
    let text = '';
    child.stdout?.on('data', (chunk: Buffer) => {
      text += chunk.toString();
      const found = wanted.exec(text)?.[1];
      if (found !== undefined) resolve(found);
    });
    child.once('exit', (code) => reject(new Error(`ended with ${code} before it was ready: ${text}`)));
  });

export class KitchenProcess {
  readonly #options: KitchenOptions;
  #server: ChildProcess | undefined;
  #scale: ChildProcess | undefined;
  #env: NodeJS.ProcessEnv = {};
  port = 0;

  constructor(options: KitchenOptions) {
    this.#options = options;
  }

  get base(): string {
    return `http://localhost:${this.port}`;
  }

  db(...args: string[]): string {
    const env = { ...process.env, DB_HOME: `${ROOT}.zabrik/${this.#options.cluster}`, DB_FSYNC: this.#options.fsync };
    return execFileSync('scripts/db.sh', args, {
      cwd: ROOT,
      env,
      encoding: 'utf8',
      stdio: ['ignore', args[0] === 'url' || args[0] === 'psql' ? 'pipe' : 'ignore', 'inherit'],
    });
  }

  async start(): Promise<void> {
    this.db('reset');
    await this.#startScale();
    this.#env = {
      ...process.env,
      DATABASE_URL: this.db('url').trim(),
      SESSION_SECRET: 'e'.repeat(48),
      PORT: String(this.#options.port),
      WEB_DIST: 'packages/web/dist',
      LOG_LEVEL: 'error',
      ZABRIK_SIMULATED: '1',
      ZABRIK_DEMO_PIN: PIN,
      ZABRIK_DEMO_BREAKDOWNS: String(this.#options.breakdowns),
      ZABRIK_SCALE: this.#env['ZABRIK_SCALE'],
    };
    execFileSync('node', ['packages/server/dist/seed.js'], {
      cwd: ROOT,
      env: this.#env,
      stdio: ['ignore', 'ignore', 'inherit'],
    });
    await this.startServer();
  }

  async #startScale(): Promise<void> {
    this.#scale = spawn('node', ['packages/server/dist/scale.js'], {
      cwd: ROOT,
      env: { ...process.env, ZABRIK_SCALE_FAST: '1' },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    this.#env['ZABRIK_SCALE'] = await firstLine(this.#scale, /scale listening (\S+)/);
  }

  /** Starts the server, or starts it again on the port it had. */
  async startServer(): Promise<void> {
    const port = this.port === 0 ? this.#env['PORT'] : String(this.port);
    const env = { ...this.#env, PORT: port, DATABASE_URL: this.db('url').trim() };
    this.#server = spawn('node', ['--enable-source-maps', 'packages/server/dist/main.js'], {
      cwd: ROOT,
      env,
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    this.port = Number(await firstLine(this.#server, /server listening (\d+)/));
  }

  killServer(): Promise<void> {
    const server = this.#server;
    return new Promise((resolve) => {
      server?.once('exit', () => resolve());
      server?.kill('SIGKILL');
    });
  }

  /** kill -9 of the postmaster; its children find out by themselves. */
  killPostgres(): void {
    const pid = Number(
      readFileSync(`${ROOT}.zabrik/${this.#options.cluster}/data/postmaster.pid`, 'utf8').split('\n')[0],
    );
    process.kill(pid, 'SIGKILL');
  }

  async stop(): Promise<void> {
    const ended = [this.#server, this.#scale].map((child) =>
      child === undefined || child.exitCode !== null || child.signalCode !== null
        ? Promise.resolve()
        : new Promise((resolve) => child.once('exit', resolve)),
    );
    this.#server?.kill('SIGTERM');
    this.#scale?.kill('SIGTERM');
    await Promise.all(ended);
    this.db('stop');
  }
}

export interface Session {
  readonly cookie: string;
  post(path: string, body: unknown, key: string): Promise<Response>;
  get(path: string): Promise<unknown>;
}

/** Signs someone in over HTTP, the way a tablet does. */
export async function signInOver(base: string, name: string): Promise<Session> {
  const door = (await (await fetch(`${base}/api/v1/houses/netloft/door`)).json()) as {
    people: { id: string; name: string }[];
  };
  const personId = door.people.find((p) => p.name === name)?.id;
  const reply = await fetch(`${base}/api/v1/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: base },
    body: JSON.stringify({ personId, pin: PIN }),
  });
  if (!reply.ok) throw new Error(`sign-in: ${reply.status}`);
  const cookie = (reply.headers.get('set-cookie') ?? '').split(';')[0] ?? '';
  return {
    cookie,
    post: (path, body, key) =>
      fetch(`${base}${path}`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', origin: base, cookie, 'idempotency-key': key },
        body: JSON.stringify(body),
        signal: AbortSignal.timeout(5_000),
      }),
    get: async (path) => (await fetch(`${base}${path}`, { headers: { cookie } })).json(),
  };
}
