import { api, type Endpoint } from '@zabrik/contract';
import { expect, it } from 'vitest';

/** The part of the contract that the browser gets, derived from the stations: `npm run light` writes it anew. */
function lightOf(stations: Readonly<Record<string, Readonly<Record<string, Endpoint>>>>): string {
  const quoted = (value: string | boolean): string => (typeof value === 'string' ? `'${value}'` : String(value));
  const all = Object.values(stations).flatMap((station) => Object.values(station));
  const routes = Object.entries(stations).map(([name, station]) => {
    const lines = Object.entries(station).map(
      ([endpoint, { id, method, path, command }]) =>
        `    ${endpoint}: { id: ${quoted(id)}, method: ${quoted(method)}, path: ${quoted(path)}, command: ${quoted(command)} },`,
    );
    return [`  ${name}: {`, ...lines, '  },'].join('\n');
  });
  return [
    '/** Where every request goes and who may send it, without the shapes. Made from stations/* by `npm run light`; a test holds it against them. */',
    'export const routes = {',
    ...routes,
    '} as const;',
    '',
    'export const allowed = {',
    ...all.map(({ id, may }) => `  '${id}': '${may}',`),
    '} as const;',
    '',
    'export type EndpointId = keyof typeof allowed;',
    '',
  ].join('\n');
}

it('the browser’s part of the contract is that of the stations', async () => {
  await expect(lightOf(api)).toMatchFileSnapshot('../packages/contract/src/light.ts');
});

it('an endpoint is named after its station and its name there', () => {
  for (const [station, endpoints] of Object.entries(api))
    for (const [name, { id }] of Object.entries(endpoints)) expect(id).toBe(`${station}.${name}`);
});
