/** Who may import whom, read off the folders: a room's place says what it may know. */
import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';

const root = fileURLToPath(new URL('..', import.meta.url));
const SPECIFIER = /(?:from|import|import\()\s*['"](\.{1,2}\/[^'"]+)['"]/g;

interface Import {
  readonly from: string;
  readonly to: string;
}

/** Every import between files of a package's source, but for those of tests; as paths below its `src`. */
function importsOf(source: string): readonly Import[] {
  const base = join(root, source);
  return readdirSync(base, { recursive: true, encoding: 'utf8' })
    .filter((file) => /\.tsx?$/.test(file) && !/\.test\.tsx?$|^testing\//.test(file))
    .flatMap((from) =>
      [...readFileSync(join(base, from), 'utf8').matchAll(SPECIFIER)].map(([, specifier = '']) => ({
        from,
        to: relative(base, join(base, dirname(from), specifier)),
      })),
    );
}

/** The room a file stands in: a station counts by itself. What stands beside the stations is the list of them. */
function roomOf(file: string): string {
  const [first = '', second = ''] = file.split('/');
  if (!file.includes('/')) return 'door';
  if (first !== 'stations') return first;
  return second.includes('.') ? 'stations' : `stations/${second}`;
}
const said = (imports: readonly Import[]): readonly string[] => imports.map((i) => `${i.from} imports ${i.to}`);

describe('the web', () => {
  /** What a room may import beside itself; stations are each a room of their own. */
  const may: Readonly<Record<string, readonly string[]>> = {
    kit: [],
    app: [],
    parts: ['app', 'kit'],
    station: ['app', 'kit', 'parts'],
    stations: ['app', 'station'],
    shell: ['app', 'kit', 'parts', 'station', 'stations'],
    door: ['app', 'shell', 'stations'],
  };
  const kind = (room: string): string => (room.startsWith('stations/') ? 'station' : room);
  const imports = importsOf('packages/web/src');

  it('has no room that nothing is said of', () => {
    expect(imports.length).toBeGreaterThan(500);
    expect([...new Set(imports.map((i) => kind(roomOf(i.from))))].filter((room) => may[room] === undefined)).toEqual(
      [],
    );
  });

  it('knows downwards only: the kit nothing, a station no other', () => {
    const wrong = imports.filter(({ from, to }) => {
      const [here, there] = [roomOf(from), roomOf(to)];
      return here !== there && may[kind(here)]?.includes(kind(there)) !== true;
    });
    expect(said(wrong)).toEqual([]);
  });
});

describe('the server', () => {
  const imports = importsOf('packages/server/src');

  it('asks for rows of whatever house only where it is not known yet whose work it is', () => {
    const base = join(root, 'packages/server/src');
    const asking = readdirSync(base, { recursive: true, encoding: 'utf8' }).filter(
      (file) =>
        file.endsWith('.ts') &&
        !file.endsWith('.test.ts') &&
        readFileSync(join(base, file), 'utf8').includes('serverRows('),
    );
    expect(asking.sort()).toEqual([
      'access/signIn.ts',
      'demo/seed.ts',
      'demo/seedMain.ts',
      'housesHere.ts',
      'stations/access/routes.ts',
      'stations/access/setUp.ts',
      'stations/pots/routes.ts',
    ]);
  });

  it('has stations that know no other station', () => {
    const stations = new Set(imports.map((i) => roomOf(i.from)).filter((room) => room.startsWith('stations/')));
    expect(stations.size).toBeGreaterThan(6);
    const wrong = imports.filter(
      ({ from, to }) =>
        roomOf(from).startsWith('stations/') && roomOf(to).startsWith('stations') && roomOf(from) !== roomOf(to),
    );
    // the shape of a station is what all of them are
    expect(said(wrong.filter(({ to }) => to !== 'stations/station.ts'))).toEqual([]);
  });

  it('has a ledger and a database that know no station', () => {
    const wrong = imports.filter(
      ({ from, to }) =>
        ['massledger', 'db', 'live', 'devices', 'http'].includes(roomOf(from)) && roomOf(to).startsWith('stations'),
    );
    expect(said(wrong)).toEqual([]);
  });
});
