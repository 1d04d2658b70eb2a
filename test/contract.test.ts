import { allowed, type EndpointId, mayDo, problemSchema, problems, roles, routes } from '@zabrik/contract';
import { allEndpoints, openApiDocument } from '@zabrik/contract/openapi';
import { describe, expect, it } from 'vitest';

interface Operation {
  readonly parameters?: readonly { readonly name: string; readonly in: string }[];
  readonly requestBody?: unknown;
  readonly responses: Readonly<Record<string, unknown>>;
}
const operation = (e: (typeof allEndpoints)[number]): Operation => {
  const path = openApiDocument.paths?.[`/api/v1${e.path.replace(/:(\w+)/g, '{$1}')}`];
  return (path as unknown as Record<string, Operation>)[e.method] as Operation;
};

describe('the contract', () => {
  it('writes each route once: stations and routes are the same list', () => {
    const flat = Object.values(routes).flatMap((station) =>
      Object.values(station as Record<string, { id: string; method: string; path: string }>),
    );
    expect(allEndpoints.map((e) => `${e.method} ${e.path}`).sort()).toEqual(
      flat.map((r) => `${r.method} ${r.path}`).sort(),
    );
    expect(new Set(flat.map((r) => `${r.method} ${r.path}`)).size).toBe(flat.length);
  });

  it('has a shape for every name in a path, and no other', () => {
    for (const e of allEndpoints) {
      const names = [...e.path.matchAll(/:(\w+)/g)].map((m) => m[1]);
      expect(Object.keys(e.params?.shape ?? {}).sort(), e.id).toEqual(names.sort());
    }
  });

  it('names its shapes, each written out once, and points at no other', () => {
    const names = Object.keys(openApiDocument.components?.schemas ?? {});
    expect(names).toEqual(
      expect.arrayContaining(['Lot', 'Breakdown', 'Delivery', 'Recipe', 'CutPlan', 'Problem', 'Supplier']),
    );
    const text = JSON.stringify(openApiDocument);
    const asked = new Set([...text.matchAll(/"\$ref":"#\/components\/schemas\/([^"]+)"/g)].map((m) => m[1]));
    expect([...asked].filter((n) => !names.includes(n ?? ''))).toEqual([]);
    // what the stream of events carries, and shapes that others are made from
    expect(names.filter((n) => !asked.has(n)).sort()).toEqual([
      'Changed',
      'LimitProfile',
      'PlanHead',
      'Progress',
      'ScaleReading',
      'Settings',
    ]);
    // it was 671 kB with every shape written out wherever it comes
    expect(text.length).toBeLessThan(480_000);
  });

  it('documents parameters, the key of a command, the body, the answer and the refusal', () => {
    for (const e of allEndpoints) {
      const o = operation(e);
      const named = (o.parameters ?? []).map((p) => p.name);
      for (const name of Object.keys(e.params?.shape ?? {})) expect(named, e.id).toContain(name);
      expect(named.includes('Idempotency-Key'), e.id).toBe(e.command !== false);
      expect(named.includes('Zabrik-Waited'), e.id).toBe(e.command === 'may-wait');
      expect(o.requestBody !== undefined, e.id).toBe(e.body !== undefined);
      expect(Object.keys(o.responses).sort(), e.id).toEqual(['200', 'default']);
    }
  });

  it('makes every change a command, but for sessions, the scale and the simulator', () => {
    const without = allEndpoints.filter((e) => e.method !== 'get' && !e.command).map((e) => e.id);
    expect(without.sort()).toEqual([
      'access.changePin', // a PIN is written nowhere, so that it cannot be a command: asked twice, it is the same one
      'access.firstDayOver', // says what stands afterwards: asked twice, it is the same
      'access.forgetTablet',
      'access.known', // asks, with too much to ask in an address
      'access.lendTablet',
      'access.newRecoveryCode', // a code is given once and kept as a hash
      'access.recover',
      'access.setUp', // before there is a house that a command could be of
      'access.signIn',
      'access.signOut',
      'access.signOutPerson',
      'access.stillHere',
      'bench.scaleCommand',
      'house.setPin',
      'house.tryDevice', // asks a device, and writes nothing
      'programs.addHook', // a secret is answered once and kept nowhere as it is
      'programs.endHook',
      'programs.endToken',
      'programs.makeToken',
      'programs.tryHook',
      'simulation.pan',
      'simulation.probe',
    ]);
  });

  it('lets a viewer look and never touch, and only chefs take an entry back', () => {
    for (const e of allEndpoints.filter((x) => x.command))
      expect(mayDo('viewer', e.id as EndpointId), e.id).toBe(false);
    for (const e of allEndpoints.filter(
      (x) =>
        x.method === 'get' &&
        !x.id.startsWith('ledger.export') &&
        !x.id.startsWith('jobs.') &&
        !x.id.startsWith('programs.') &&
        // what is the chefs’ alone: backups, people, devices, tablets, what was changed of the house
        !['house.keeping', 'house.people', 'house.changes', 'house.devices', 'access.tablets'].includes(x.id),
    ))
      for (const role of roles) expect(mayDo(role, e.id as EndpointId), e.id).toBe(true);
    expect(roles.filter((role) => mayDo(role, 'jobs.file'))).toEqual(['sous-chef', 'head-chef']);
    expect(roles.filter((role) => mayDo(role, 'ledger.reverse'))).toEqual(['sous-chef', 'head-chef']);
    expect([...allowed].filter(([, actor]) => actor === 'open').map(([id]) => id)).toEqual([
      'access.houses',
      'access.signInOptions',
      'access.signIn',
      // a code each, that was printed
      'access.setUpOpen',
      'access.setUp',
      'access.recover',
      'pots.bells', // what is due in a kitchen rings at a tablet where nobody is signed in
    ]);
    for (const id of ['house.people', 'house.changes'] as const)
      expect(roles.filter((role) => mayDo(role, id))).toEqual(['sous-chef', 'head-chef']);
  });

  it('words every problem as a sentence, with a status that fits', () => {
    for (const [code, { status, title }] of Object.entries(problems)) {
      expect(title, code).toMatch(/^[A-Z].*\.$/);
      expect(title, code).not.toMatch(/error|invalid|failed|!/i);
      expect(status, code).toBeGreaterThanOrEqual(400);
      expect(problemSchema.safeParse({ type: `urn:zabrik:problem:${code}`, code, title, status }).success).toBe(true);
    }
  });
});
