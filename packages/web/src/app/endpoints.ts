import type { EndpointId, Route, api as withShapes } from '@zabrik/contract';
import { routes } from '@zabrik/contract/routes';

/** A route of this version of the app. */
interface Known extends Route {
  readonly id: EndpointId;
}

/**
 * The contract as the browser needs it: routes at run time, shapes for the compiler alone. The server checks every request and
 * every answer against the shapes, so they are not sent to the tablet to be checked again.
 */
export const api = routes as unknown as typeof withShapes;

const byId: ReadonlyMap<string, Known> = new Map(
  Object.values(routes)
    .flatMap((station): readonly Known[] => Object.values(station))
    .map((route) => [route.id, route]),
);

/** The route of that name. Errors: a sentence, for one that this version of the app does not have. */
export function routeOf(id: EndpointId): Known {
  const route = byId.get(id);
  if (route === undefined) throw new Error(`This version of the app does not know ${id}.`);
  return route;
}

/** The command an address stands for: what versions before kept instead of its name. */
export function commandAt(
  url: string,
): { readonly endpoint: EndpointId; readonly params: Readonly<Record<string, string>> } | undefined {
  const parts = url.replace('/api/v1', '').split('?')[0]?.split('/') ?? [];
  for (const route of byId.values()) {
    const own = route.path.split('/');
    if (route.command === false || own.length !== parts.length) continue;
    if (!own.every((part, i) => part.startsWith(':') || part === parts[i])) continue;
    const named = own.flatMap((part, i) =>
      part.startsWith(':') ? [[part.slice(1), decodeURIComponent(parts[i] ?? '')]] : [],
    );
    return { endpoint: route.id, params: Object.fromEntries(named) as Record<string, string> };
  }
  return undefined;
}
