import { type EndpointId, routes } from './light.ts';

export const roles = ['butcher', 'sous-chef', 'head-chef', 'viewer'] as const;
export type Role = (typeof roles)[number];

export const roleNames: Readonly<Record<Role, string>> = {
  butcher: 'Butcher',
  'sous-chef': 'Sous chef',
  'head-chef': 'Head chef',
  viewer: 'Viewer',
};

/** What somebody does alone, without another beside them. */
export const skills = ['fish', 'shellfish', 'poultry', 'game', 'meat', 'stove', 'receiving'] as const;
export type Skill = (typeof skills)[number];

/**
 * How long a tablet may lie untouched before it asks again who stands there, minutes, where the house has not said otherwise: the more a role may do,
 * the shorter. A butcher's hands are in a fish for an hour; a viewer's screen hangs on the wall.
 */
export const usualIdleMinutes: Readonly<Record<Role, number>> = {
  butcher: 240,
  'sous-chef': 60,
  'head-chef': 30,
  viewer: 720,
};
/** The shortest that anybody is left alone: less, and nobody would get round a fish. */
export const SHORTEST_IDLE_MINUTES = 5;
/** How long a session lasts at most, however busy: a long shift. */
export const SHIFT_MINUTES = 14 * 60;

const chefs = ['sous-chef', 'head-chef'] as const;

/** Who may do a thing, in the words an endpoint says it with. `open`: nobody needs to be signed in. */
export const groups = {
  everyone: roles,
  bench: ['butcher', 'sous-chef', 'head-chef'],
  chefs,
  'head-chef': ['head-chef'],
} as const satisfies Readonly<Record<string, readonly Role[]>>;
export type May = keyof typeof groups | 'open';

/** Who may ask for a kind of file, see it among those asked for and fetch it. */
export const filesAllowed = {
  'movements-csv': chefs,
  'movements-epcis': chefs,
  'house-file': ['head-chef'],
  tables: ['head-chef'],
} as const satisfies Readonly<Record<string, readonly Role[]>>;
export const mayHaveFile = (role: Role, kind: keyof typeof filesAllowed): boolean =>
  (filesAllowed[kind] as readonly Role[]).includes(role);

/** Who may, by endpoint. */
export const allowed: ReadonlyMap<EndpointId, May> = new Map(
  Object.values(routes).flatMap((station) =>
    Object.values<{ readonly id: EndpointId; readonly may: May }>(station).map(({ id, may }) => [id, may] as const),
  ),
);

/** Who may use an endpoint. A test walks it route by route; the web hides what it refuses. */
export function permissions(endpointId: EndpointId): 'open' | readonly Role[] {
  const may = allowed.get(endpointId);
  if (may === undefined) throw new Error(`there is no endpoint ${endpointId}`);
  return may === 'open' ? may : groups[may];
}

export function mayDo(role: Role, endpointId: EndpointId): boolean {
  const actor = permissions(endpointId);
  return actor === 'open' || actor.includes(role);
}
