/**
 * What this tablet did and the records took: kept for a fortnight, for the day when the records are brought back from a backup that is older
 * than that. Nobody waits for it, and a tablet that cannot keep it works as well as one that can.
 */
import { createStore, delMany, entries, set } from 'idb-keyval';
import { type Author, authorNow } from './author.ts';
import { type CommandRecord, type KeptBefore, upgraded } from './record.ts';

export interface Done extends CommandRecord {
  readonly by: Author;
  readonly doneAt: number;
}

const KEPT_MS = 14 * 86_400_000;
const MOST = 3_000;
/** Photographs and price lists are not kept twice: longer than this, characters. */
const LONGEST = 100_000;

const store = createStore('zabrik-done', 'commands');

/** Writes down that a command was done. */
export function noteDone(command: CommandRecord, by: Author | undefined = authorNow()): void {
  if (by === undefined || JSON.stringify(command.body ?? null).length > LONGEST) return;
  const { key, endpoint, params, body, about, says } = command;
  void set(key, { key, endpoint, params, body, about, says, by, doneAt: Date.now() } satisfies Done, store).catch(
    () => undefined,
  );
}

/** What was done since a moment, in the order it was done; lets go of what is older than a fortnight. */
export async function doneSince(at: number): Promise<readonly Done[]> {
  const all = (await entries<string, KeptBefore<Done>>(store))
    .flatMap(([, done]) => upgraded(done))
    .sort((a, b) => a.doneAt - b.doneAt);
  const old = all.filter((d, i) => Date.now() - d.doneAt > KEPT_MS || i < all.length - MOST);
  await delMany(
    old.map((d) => d.key),
    store,
  );
  return all.filter((d) => d.doneAt >= at && !old.includes(d));
}
