import { createHash } from 'node:crypto';

/**
 * The ids of what a command makes, one after another: UUIDs of version 7 that follow from its key alone. The same command makes the same things
 * under the same ids again, so that what tablets kept beyond a backup still fits together when they say it once more.
 *
 * Keeps  the order in which they were asked for; the time is that of the key.
 */
export function idsOf(commandId: string): () => string {
  const time = commandId.replaceAll('-', '').slice(0, 12);
  let n = 0;
  return () => {
    n += 1;
    const tail = createHash('sha256').update(`${commandId}/${n}`).digest('hex').slice(0, 16);
    const variant = ((Number.parseInt(tail.slice(0, 1), 16) & 3) | 8).toString(16);
    const hex = `${time}7${n.toString(16).padStart(3, '0')}${variant}${tail.slice(1)}`;
    return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-${hex.slice(12, 16)}-${hex.slice(16, 20)}-${hex.slice(20)}`;
  };
}
