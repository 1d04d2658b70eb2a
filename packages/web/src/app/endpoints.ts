import type { api as withShapes } from '@zabrik/contract';
import { routes } from '@zabrik/contract/routes';

/**
 * The contract as the browser needs it: routes at run time, shapes for the compiler alone. The server checks every request and
 * every answer against the shapes, so they are not sent to the tablet to be checked again.
 */
export const api = routes as unknown as typeof withShapes;
