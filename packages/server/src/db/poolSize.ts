/** Lines of a server process beside its pool: sessions, long reads, the one that listens. */
const BESIDE = 4 + 2 + 1;
/** Lines left to others: what the database keeps for its owner, a backup with its dump, somebody who looks. */
const FOR_OTHERS = 8;
const MOST = 20;
const FEWEST = 4;

/**
 * How many lines to the database one of several server processes may hold in its pool, so that all of them together find room.
 *
 * Errors  a sentence, when so many processes do not fit the database's `max_connections`.
 *
 * @example 60 connections, 1 process -> 20; 4 processes -> 6
 */
export function poolSize(maxConnections: number, processes: number): number {
  const each = Math.floor((maxConnections - FOR_OTHERS) / processes) - BESIDE;
  if (each < FEWEST)
    throw new Error(
      `The database takes ${maxConnections} connections, and ${processes} server processes need ${processes * (FEWEST + BESIDE) + FOR_OTHERS}. Raise max_connections, or start fewer.`,
    );
  return Math.min(MOST, each);
}
