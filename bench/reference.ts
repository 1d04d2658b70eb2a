/**
 * What the machine can do in this very minute: work of a fixed kind, done in turn with what is measured. A figure says as much of the weather on
 * the machine as of the program; how many times its reference it takes says something of the program.
 */
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import pg from 'pg';

/** Plain arithmetic in whole and broken numbers, a few milliseconds. */
function arithmetic(): number {
  let state = 0x9e3779b9;
  let sum = 0;
  for (let i = 0; i < 600_000; i += 1) {
    state ^= state << 13;
    state ^= state >>> 17;
    state ^= state << 5;
    sum += Math.sqrt((state >>> 0) / 4_294_967_296) * 0.5;
  }
  return sum;
}

/** Small objects made, sorted, gathered and written out, a few milliseconds. */
function objects(): number {
  const all = Array.from({ length: 4_000 }, (_, i) => ({
    id: `p${(i * 7_919) % 4_000}`,
    massMg: (i * 104_729) % 9_973,
    tags: [i % 3, i % 5],
  }));
  const byTag = new Map<number, number>();
  for (const { massMg, tags } of all.sort((a, b) => a.massMg - b.massMg || a.id.localeCompare(b.id)))
    for (const tag of tags) byTag.set(tag, (byTag.get(tag) ?? 0) + massMg);
  return JSON.stringify([...byTag, ...all.slice(0, 1_000)]).length;
}

/** Both, one after the other: about as much of each as the core's own work has. */
export function fixedWork(): number {
  return arithmetic() + objects();
}

/** Milliseconds of the fixed work on this kind of machine (Intel Xeon, 2 cores, Node 20) with nothing else to do: the least of four quiet runs on 30 November 2026. */
export const QUIET_MS = 1.9;

export interface InTurn {
  /** Milliseconds. */
  readonly middle: number;
  readonly p95: number;
  readonly most: number;
  readonly referenceMiddle: number;
  /** How many times its reference, done just after it, the work takes: the middle of those of all goes. */
  readonly ratio: number;
}

const at = (sorted: readonly number[], share: number): number =>
  sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? Number.NaN;

const timed = async (work: () => unknown): Promise<number> => {
  const before = performance.now();
  await work();
  return performance.now() - before;
};

/** Does the work and its reference in turn, so often, after a third as many goes that warm both up. */
export async function inTurn(work: () => unknown, reference: () => unknown = fixedWork, goes = 40): Promise<InTurn> {
  const times: number[] = [];
  const references: number[] = [];
  for (let i = -Math.ceil(goes / 3); i < goes; i += 1) {
    const took = await timed(work);
    const other = await timed(reference);
    if (i < 0) continue;
    times.push(took);
    references.push(other);
  }
  const ratios = times.map((took, i) => took / (references[i] ?? Number.NaN)).sort((a, b) => a - b);
  times.sort((a, b) => a - b);
  references.sort((a, b) => a - b);
  return {
    middle: at(times, 0.5),
    p95: at(times, 0.95),
    most: times.at(-1) ?? Number.NaN,
    referenceMiddle: at(references, 0.5),
    ratio: at(ratios, 0.5),
  };
}

/** A server that does nothing but `select 1` over a pool: what asking this machine over HTTP and its database costs at all. */
export async function barestServer(
  databaseUrl: string,
): Promise<{ readonly ask: () => Promise<void>; readonly stop: () => Promise<void> }> {
  const pool = new pg.Pool({ connectionString: databaseUrl, max: 4 });
  const server = createServer((_, response) => {
    pool.query('select 1 as one').then(
      ({ rows }) => response.setHeader('content-type', 'application/json').end(JSON.stringify(rows)),
      () => response.writeHead(500).end(),
    );
  });
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  const base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  return {
    ask: async () => {
      const reply = await fetch(base);
      if (!reply.ok) throw new Error(`the barest server answered ${reply.status}`);
      await reply.json();
    },
    stop: async () => {
      server.closeAllConnections();
      await new Promise<void>((done) => server.close(() => done()));
      await pool.end();
    },
  };
}

/** A name that no script has: it begins with no figure. */
const name = (n: number): string => `x${n.toString(36)}`;

/** Script that nobody calls, so much of it when it is packed: what a page carries beside what it runs. */
async function unusedScript(gzipBytes: number): Promise<string> {
  const { gzipSync } = await import('node:zlib');
  let state = 1;
  const next = (): number => {
    state = (state * 48_271) % 2_147_483_647;
    return state;
  };
  let script = '';
  while (gzipSync(script).length < gzipBytes)
    for (let i = 0; i < 200; i += 1)
      script += `function ${name(next())}(a,b){const c=a.${name(next())}*${next() % 9_973}+b;return c>${next() % 997}?[c,"${name(next())}"]:{${name(next())}:c-b}}\n`;
  return script;
}

/**
 * Pages that a browser's figures are held against: `/tree` mounts an empty React tree and carries as many bytes of script as a screen of the app,
 * `/keys` paints something at a key, `/frames` moves something at each frame.
 */
export async function barestPages(
  gzipBytes: number,
): Promise<{ readonly base: string; readonly stop: () => Promise<void> }> {
  const [{ build }, { gzipSync }] = await Promise.all([import('vite'), import('node:zlib')]);
  const entry = 'virtual:empty-tree';
  const built = await build({
    configFile: false,
    logLevel: 'silent',
    root: new URL('../packages/web', import.meta.url).pathname,
    define: { 'process.env.NODE_ENV': '"production"' },
    plugins: [
      {
        name: 'empty-tree',
        resolveId: (id: string) => (id === entry ? `\0${entry}` : undefined),
        load: (id: string) =>
          id === `\0${entry}`
            ? `import { createElement } from 'react'; import { createRoot } from 'react-dom/client';
               const root = document.getElementById('root');
               if (root !== null) createRoot(root).render(createElement('h1', { id: 'ready' }, 'ready'));`
            : undefined,
      },
    ],
    build: { write: false, rollupOptions: { input: entry }, modulePreload: false },
  });
  const [chunk] = (Array.isArray(built) ? built : [built]).flatMap((b) => ('output' in b ? b.output : []));
  const tree = chunk !== undefined && 'code' in chunk ? chunk.code : '';
  if (tree === '') throw new Error('the empty tree was not built');
  const script = gzipSync(`${tree}\n${await unusedScript(gzipBytes - gzipSync(tree).length)}`);
  const page = (head: string, body: string): string =>
    `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>x</title>${head}</head><body>${body}</body></html>`;
  const pages: Readonly<Record<string, string>> = {
    '/tree': page('<script type="module" src="/tree.js"></script>', '<div id="root"></div>'),
    '/keys': page('', '<figure></figure>'),
    '/frames': page('', '<div id="moved" style="width:40px;height:40px;background:#0f3b3a"></div>'),
  };
  const server = createServer((request, response) => {
    if (request.url === '/tree.js') {
      response.writeHead(200, { 'content-type': 'text/javascript', 'content-encoding': 'gzip' }).end(script);
      return;
    }
    const found = pages[request.url ?? ''];
    if (found === undefined) response.writeHead(404).end();
    else response.writeHead(200, { 'content-type': 'text/html' }).end(found);
  });
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  return {
    base: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    stop: async () => {
      server.closeAllConnections();
      await new Promise<void>((done) => server.close(() => done()));
    },
  };
}
