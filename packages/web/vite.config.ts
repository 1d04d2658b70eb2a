import { readFileSync } from 'node:fs';
import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';
import { compression, defineAlgorithm } from 'vite-plugin-compression2';
import { VitePWA } from 'vite-plugin-pwa';

/** Lets the page fetch the app while the first lines of it are still being read: every address needs these files. */
const fetchAppAtOnce: Plugin = {
  name: 'fetch-app-at-once',
  transformIndexHtml: {
    order: 'post',
    handler: (_html, { bundle }) =>
      Object.values(bundle ?? {})
        .filter((file) => file.type === 'chunk' && ['main', 'shared', 'rolldown-runtime'].includes(file.name))
        .map(({ fileName }) => ({
          tag: 'link',
          attrs: { rel: 'modulepreload', crossorigin: true, href: `/${fileName}` },
          injectTo: 'head',
        })),
  },
};

/** What goes out with a release, by the lock file: whose it is and under which terms. */
const builtOf: Plugin = {
  name: 'built-of',
  resolveId: (id) => (id === 'virtual:built-of' ? '\0built-of' : null),
  load: (id) => {
    if (id !== '\0built-of') return null;
    const root = new URL('../../', import.meta.url);
    const { version } = JSON.parse(readFileSync(new URL('package.json', root), 'utf8')) as { version: string };
    const lock = JSON.parse(readFileSync(new URL('package-lock.json', root), 'utf8')) as {
      packages: Record<string, { version?: string; license?: string; dev?: boolean; link?: boolean }>;
    };
    const parts = Object.entries(lock.packages)
      .filter(([path, p]) => path.startsWith('node_modules/') && p.dev !== true && p.link !== true)
      .map(([path, p]) => ({
        name: path.split('node_modules/').at(-1) ?? path,
        version: p.version ?? '',
        license: p.license ?? 'terms in its own folder',
      }))
      .filter((p, i, all) => all.findIndex((o) => o.name === p.name && o.version === p.version) === i)
      .sort((a, b) => a.name.localeCompare(b.name));
    const changed = readFileSync(new URL('CHANGELOG.md', root), 'utf8');
    return `export const changed = ${JSON.stringify(changed)}; export const version = ${JSON.stringify(version)}; export const parts = ${JSON.stringify(parts)};`;
  },
};

const CHARTS =
  /[\\/]node_modules[\\/](?:recharts|d3-|victory-vendor|@reduxjs|redux|react-redux|immer|eventemitter3|reselect|decimal\.js-light|es-toolkit|internmap)/;

/** What a module comes with: a part of the kit, or the station whose screens alone need it; none for what the bench needs, which comes first. */
const OWN: readonly (readonly [name: string, test: RegExp])[] = [
  [
    'table',
    /[\\/](?:@tanstack[\\/](?:react-table|table-core|react-store|store)|node_modules[\\/]use-sync-external-store|kit[\\/]DataTable\.tsx)/,
  ],
  // forms of more than a field: no one types one before the bench is there
  [
    'forms',
    /[\\/](?:node_modules[\\/](?:react-hook-form|@hookform|zod)|web[\\/]src[\\/](?:app[\\/]keptForm|kit[\\/]fieldReaders)\.ts)/,
  ],
  // lists that go on as one scrolls: the bench has none
  [
    'lists',
    /[\\/](?:query-core[\\/]build[\\/]modern[\\/]infiniteQueryObserver|react-query[\\/]build[\\/]modern[\\/]useInfiniteQuery|web[\\/]src[\\/]parts[\\/]useRows)\.[jt]s/,
  ],
  ['paper', /[\\/](?:kit[\\/]PaperLink|parts[\\/](?:PrintHead|HowLink))\.tsx|icons[\\/]printer\./],
  // a scale on this tablet's own cable: few have one
  [
    'cable',
    /[\\/](?:web[\\/]src[\\/]app[\\/]readCable|devices[\\/]src[\\/](?:serial|serialLine|serialScale|scaleLine))\.ts/,
  ],
  ['csv', /[\\/]node_modules[\\/]papaparse[\\/]/],
  [
    'kit',
    /[\\/](?:react-(?:radio-group|progress)|kit[\\/](?:NumberPad|NumField|StationHead|ProgressBar|Choice|SearchBox|Check|ChartFrame|RangeBar|MoneyField|DateField)\.tsx|parts[\\/](?:MinutesFields|PhotoField|TakePhoto|ReceiveHead|RecoveryCode|StillHere|Confirm|GoOn|AllergensSaid|BeforePan|Caution)\.tsx|parts[\\/](?:mouldSides|spreadWords|rows|smallPhoto|verdictWords|amountIn)\.ts|core[\\/]src[\\/](?:quantity[\\/]volume|slug|costing[\\/](?:costFactor|shareCost))\.ts|kit[\\/]litresIn\.ts)/,
  ],
  // what stands over a page, and places itself
  [
    'over',
    /[\\/](?:node_modules[\\/](?:@floating-ui|aria-hidden|tslib|cmdk|react-remove-scroll|react-style-singleton|use-(?:callback-ref|sidecar))|react-(?:dialog|popover|popper|arrow|dismissable-layer|focus-(?:guards|scope)|portal|use-(?:escape-keydown|size|rect))[\\/]|kit[\\/](?:Dialog|Popover|SearchSelect)\.tsx)/,
  ],
  // what is found, ordered and read from price lists: no animal is cut with it
  ['find', /[\\/]core[\\/]src[\\/]trace[\\/](?:lotCode|searchWords)\.ts/],
  ['receive', /[\\/]core[\\/]src[\\/]receiving[\\/]/],
  ['safety', /[\\/](?:core[\\/]src[\\/](?:safety[\\/]|trace[\\/]allergens\.ts)|contract[\\/]src[\\/]claimWords\.ts)/],
  ['plans', /[\\/]web[\\/]src[\\/]stations[\\/]bench[\\/]plans[\\/]/],
  ['cutting', /[\\/](?:core[\\/]src[\\/]portioning|web[\\/]src[\\/]stations[\\/]bench[\\/]cutting)[\\/]/],
  [
    'pots',
    /[\\/](?:(?:core[\\/]src|web[\\/]src[\\/]stations)[\\/](?:pots|heat)[\\/](?!(?:bar|reads|ownTimes)\.ts)|catalogue[\\/]src[\\/]heat\.ts)/,
  ],
  ...['receive', 'larder', 'ledger', 'house', 'help', 'find', 'access'].map((name): readonly [string, RegExp] => [
    name,
    // what the bar over every screen says of a station, and what its screens open with, comes with the app: it would wait for a file of each
    new RegExp(`[\\\\/]web[\\\\/]src[\\\\/]stations[\\\\/]${name}[\\\\/](?!(?:bar|reads)\\.ts)`),
  ]),
];
const stationOf = (id: string): string | undefined => OWN.find(([, test]) => test.test(id))?.[0];

export default defineConfig({
  plugins: [
    react(),
    builtOf,
    fetchAppAtOnce,
    tailwindcss(),
    compression({
      include: /assets\/.*\.(?:js|css|svg)$/,
      algorithms: [defineAlgorithm('brotliCompress'), defineAlgorithm('gzip', { level: 9 })],
    }),
    VitePWA({
      registerType: 'prompt',
      injectRegister: false,
      manifest: {
        name: 'Zabrik',
        short_name: 'Zabrik',
        description: 'Every gram that comes through the door is accounted for.',
        start_url: '/',
        display: 'standalone',
        orientation: 'any',
        theme_color: '#0F3B3A',
        background_color: '#E6EBEA',
        icons: [{ src: '/icon.svg', sizes: 'any', type: 'image/svg+xml', purpose: 'any' }],
      },
      workbox: {
        globPatterns: ['**/*.{js,css,html,svg,woff2}'],
        globIgnores: ['**/*vietnamese*', '**/*cyrillic*', '**/*greek*'],
        navigateFallback: '/index.html',
        navigateFallbackDenylist: [/^\/api\//],
        clientsClaim: true,
      },
    }),
  ],
  worker: { format: 'es' },
  build: {
    target: 'es2023',
    sourcemap: true,
    chunkSizeWarningLimit: 600,
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            // every file costs a slow tablet some milliseconds of its one thread: what screens share is one file, beside the few
            // lines that ask for it
            { name: 'early', test: /[\\/](?:early|scripts|routes)\.ts$|preload-helper/, priority: 2 },
            // two screens draw charts, each when asked for: no other screen should wait for the library
            {
              name: 'shared',
              test: (id: string) => !CHARTS.test(id) && stationOf(id) === undefined,
              minShareCount: 2,
              priority: 1,
            },
            // what only the screens of one station share comes with that station
            { name: (id: string) => stationOf(id) ?? null, debugName: 'stations', minShareCount: 2 },
          ],
        },
      },
    },
  },
  server: { host: '127.0.0.1', proxy: { '/api': { target: process.env['API'] ?? 'http://127.0.0.1:4180' } } },
});
