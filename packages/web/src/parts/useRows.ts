import { useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import { changed, moved, without } from './rows.ts';

/** Rows that have no name of their own: each is known by an id that stays with it while it is written and moved. */
export function useRows<T>(rows: readonly T[], onRows: (rows: T[]) => void) {
  const [ids, setIds] = useState(() => rows.map(() => uuidv7()));
  return {
    rows: rows.map((row, i) => ({ row, i, id: ids[i] ?? String(i) })),
    change: (i: number, next: T): void => onRows(changed(rows, i, next)),
    move: (i: number, by: number): void => {
      setIds(moved(ids, i, by));
      onRows(moved(rows, i, by));
    },
    leaveOut: (i: number): void => {
      setIds(without(ids, i));
      onRows(without(rows, i));
    },
    add: (row: T): void => {
      setIds([...ids, uuidv7()]);
      onRows([...rows, row]);
    },
  };
}
