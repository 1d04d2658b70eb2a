import { Problem } from './problem.ts';

/** A place in a list ordered by time and id, newest first, as text for the client to hand back. */
export interface Place {
  readonly at: string;
  readonly id: string;
}

export const cursorOf = (place: Place): string =>
  Buffer.from(JSON.stringify([place.at, place.id])).toString('base64url');

export function readCursor(cursor: string | undefined): Place | undefined {
  if (cursor === undefined) return undefined;
  try {
    const [at, id] = JSON.parse(Buffer.from(cursor, 'base64url').toString('utf8')) as unknown[];
    if (
      typeof at === 'string' &&
      typeof id === 'string' &&
      at.length < 40 &&
      /^[0-9a-f-]{36}$/.test(id) &&
      !Number.isNaN(Date.parse(at))
    )
      return { at, id };
  } catch {
    // falls through to the refusal
  }
  throw new Problem('invalid', undefined, [{ path: 'cursor', message: 'not a place in this list' }]);
}

/** A place in a list that stands in groups: the group first. */
export interface GroupPlace extends Place {
  readonly group: string;
}

export const groupCursorOf = ({ group, at, id }: GroupPlace): string =>
  Buffer.from(JSON.stringify([at, id, group])).toString('base64url');

export function readGroupCursor(cursor: string | undefined): GroupPlace | undefined {
  if (cursor === undefined) return undefined;
  const place = readCursor(cursor);
  const group: unknown = JSON.parse(Buffer.from(cursor, 'base64url').toString('utf8'))[2];
  if (place === undefined || typeof group !== 'string')
    throw new Problem('invalid', undefined, [{ path: 'cursor', message: 'not a place in this list' }]);
  return { ...place, group };
}

/** Cuts a list that was read one row too far, and says where the next page starts. */
export function pageOf<Row>(
  rows: readonly Row[],
  limit: number,
  place: (row: Row) => Place,
): { readonly rows: Row[]; readonly next: string | null } {
  const page = rows.slice(0, limit);
  const last = page.at(-1);
  return { rows: page, next: rows.length > limit && last !== undefined ? cursorOf(place(last)) : null };
}
