import type { IncomingMessage } from 'node:http';
import { lanAddresses, lanNames } from '../lan/addresses.ts';

/** Addresses of a machine change with its network: looked up anew after so long. */
const LOOK_AGAIN_MS = 10_000;

/**
 * Whether a request was sent to this machine by one of its own names. A page of a stranger whose name is suddenly ours asks under its own
 * name, and Origin and Host then agree: only a list of own names tells.
 *
 * Shapes  more: names a balancer or a proxy in front is known by.
 */
export function ownHosts(more: readonly string[]): (request: Pick<IncomingMessage, 'headers'>) => boolean {
  const always = new Set(['localhost', '127.0.0.1', '[::1]', ...more.map((name) => name.toLowerCase())]);
  let now = new Set<string>();
  let lookedAt = 0;
  return ({ headers }) => {
    const { host } = headers;
    if (host === undefined || !URL.canParse(`http://${host}`)) return false;
    const name = new URL(`http://${host}`).hostname.toLowerCase();
    if (always.has(name)) return true;
    if (Date.now() - lookedAt > LOOK_AGAIN_MS) {
      now = new Set([...lanNames(), ...lanAddresses()]);
      lookedAt = Date.now();
    }
    return now.has(name);
  };
}
