import { api, type Endpoint } from '@zabrik/contract';
import { expect, it } from 'vitest';

/** The part of the contract that the browser gets, derived from the stations: `npm run light` writes it anew. */
function lightOf(stations: Readonly<Record<string, Readonly<Record<string, Endpoint>>>>): string {
  const quoted = (value: string | boolean): string => (typeof value === 'string' ? `'${value}'` : String(value));
  const routes = Object.entries(stations).map(([name, station]) => {
    const lines = Object.entries(station).map(
      ([endpoint, { method, path, command, may }]) =>
        `    ${endpoint}: { method: ${quoted(method)}, path: ${quoted(path)}, command: ${quoted(command)}, may: ${quoted(may)} },`,
    );
    return [`  ${name}: {`, ...lines, '  },'].join('\n');
  });
  return [
    '/** Where every request goes and who may send it, without the shapes. Made from stations/* by `npm run light`; a test holds it against them. */',
    "import { withIds } from './withIds.ts';",
    '',
    'export const routes = withIds({',
    ...routes,
    '} as const);',
    '',
    'type Routes = typeof routes;',
    'export type EndpointId = { [S in keyof Routes]: Extract<Routes[S][keyof Routes[S]], { readonly id: string }>["id"] }[keyof Routes];',
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
