import { createHash } from 'node:crypto';

/** Keys of later are taken for keys without a time. */
const YEAR_2200 = 7_258_118_400_000;

/**
 * The time in a tablet's key, as `time_in` reads it in the database: whoever says the same key again says the same time, in whatever month. A key that
 * has none (not of version 7) is of 1970.
 */
export function timeIn(id: string): Date {
  const ms = Number.parseInt(id.slice(0, 13).replace('-', ''), 16);
  return new Date(id[14] === '7' && ms < YEAR_2200 ? ms : 0);
}

/**
 * The ids of what a command makes, one after another: UUIDs of version 7 that follow from its key alone. The same command makes the same things
 * under the same ids again, so that what tablets kept beyond a backup still fits together when they say it once more.
 *
 * Keeps  the order in which they were asked for, up to sixteen million; the time is that of the key.
 */
export function idsOf(commandId: string): () => string {
  const time = commandId.replaceAll('-', '').slice(0, 12);
  let n = 0;
  return () => {
    n += 1;
    // the count stands in front of what is drawn: half of it before the variant, half behind
    const count = n.toString(16).padStart(6, '0');
    const tail = createHash('sha256').update(`${commandId}/${n}`).digest('hex').slice(0, 12);
    const hex = `${time}7${count.slice(0, 3)}8${count.slice(3)}${tail}`;
    return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-${hex.slice(12, 16)}-${hex.slice(16, 20)}-${hex.slice(20)}`;
  };
}
