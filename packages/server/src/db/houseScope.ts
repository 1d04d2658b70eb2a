import { AsyncLocalStorage } from 'node:async_hooks';

const scope = new AsyncLocalStorage<string | undefined>();
const UUID = /^[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

/**
 * Does work for one house: until it is done, every line to the database it uses sees and writes rows of that house alone, whatever its SQL says.
 * Errors  a sentence, for what is no house's id.
 */
export function forHouse<T>(houseId: string, work: () => Promise<T>): Promise<T> {
  if (!UUID.test(houseId)) throw new Error(`${houseId} is no house’s id`);
  return scope.run(houseId, work);
}

/** Does work of the server's own, such as the queue's, from wherever it is asked for. */
export const forServer = <T>(work: () => Promise<T>): Promise<T> => scope.run(undefined, work);

/** The house that is worked for; undefined where it is the server's own work: signing in, migrating, the nightly round. */
export const houseNow = (): string | undefined => scope.getStore();
