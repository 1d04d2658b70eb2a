/** What stands on the browser's tab: what is open, where, and whose app it is. "Hake fillet 0927-L · Larder · Zabrik". */
import { useEffect } from 'react';

let room: string | undefined;
let open: string | undefined;
let heard: ((open: string, room: string | undefined) => void) | undefined;
const write = (): void => {
  if (open !== undefined) heard?.(open, room);
  document.title = [open, room, 'Zabrik'].filter((part) => part !== undefined).join(' · ');
};

/** The screen one stands in, by its name. */
export function useRoom(name: string | undefined): void {
  useEffect(() => {
    room = name;
    write();
  }, [name]);
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

/** Tells of what is opened, from what is open now on. */
export function onOpened(listener: NonNullable<typeof heard>): () => void {
  heard = listener;
  write();
  return () => {
    heard = undefined;
  };
}
