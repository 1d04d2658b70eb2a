/** What a page asks the server for before anything of the app is there: the page itself by its first lines, and the server, which knows it as soon as the address is asked for. */
import { routes } from './light.ts';

const A_BREAKDOWN = /^\/bench\/([0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12})$/;

/**
 * The reads of an address, as paths under /api/v1.
 *
 * @example "/larder" -> who is signed in, and the house; "/bench/<id>" -> and that breakdown
 */
export function earlyReads(address: string): readonly string[] {
  const breakdownId = A_BREAKDOWN.exec(address)?.[1];
  return [
    routes.access.me.path,
    routes.house.read.path,
    ...(breakdownId === undefined ? [] : [routes.bench.read.path.replace(':breakdownId', breakdownId)]),
  ].map((path) => `/api/v1${path}`);
}
