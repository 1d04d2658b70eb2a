/** What stands on the browser's tab: what is open, where, and whose app it is. "Hake fillet 0927-L · Larder · Zabrik". */
import { useEffect } from 'react';

/** The longest beginning of an address counts. */
const rooms: Readonly<Record<string, string>> = {
  '/sign-in': 'Sign in',
  '/receive': 'Receive',
  '/receive/prices': 'Prices',
  '/limits': 'Limits',
  '/bench': 'Bench',
  '/bench/plans': 'Cut plans',
  '/bench/cut': 'Cut to weight',
  '/larder': 'Larder',
  '/larder/tubs': 'Tubs',
  '/larder/count': 'Stock-take',
  '/larder/labels': 'Labels',
  '/pots': 'Pots',
  '/pots/stove': 'At the stove',
  '/pots/cooling': 'Cooling',
  '/pots/reckon': 'Sums of the stove',
  '/ledger': 'Ledger',
  '/waiting': 'Kept on this tablet',
  '/server': 'The kitchen’s server',
};

export const roomOf = (path: string): string | undefined =>
  Object.entries(rooms)
    .filter(([start]) => path === start || path.startsWith(`${start}/`))
    .sort(([a], [b]) => b.length - a.length)[0]?.[1];

let room: string | undefined;
let open: string | undefined;
const write = (): void => {
  document.title = [open, room, 'Zabrik'].filter((part) => part !== undefined).join(' · ');
};

/** The room of the kitchen that an address is in. */
export function useRoom(path: string): void {
  useEffect(() => {
    room = roomOf(path);
    write();
  }, [path]);
}

/** What is open in it, while it is. */
export function useOpen(what: string | undefined): void {
  useEffect(() => {
    open = what;
    write();
    return () => {
      open = undefined;
      write();
    };
  }, [what]);
}
