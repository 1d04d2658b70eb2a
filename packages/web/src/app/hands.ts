/** A tablet that lies untouched for as long as its house lets it asks again who stands there. */

/** Said on the page when something was done without a touch, as a weight that takes itself. */
export const WORKED = 'zabrik-worked';

const TOUCHED = 'zabrik-touched';
const LOOK_MS = 15_000;
/** How often of its idle time the server hears that somebody is there. */
const SHARE = 6;

interface Watch {
  /** How long it may. */
  readonly idleMinutes: number;
  /** Tells the server. */
  readonly tell: () => Promise<unknown>;
  readonly leave: () => void;
  /** Nobody is sent out while nobody could come in again. */
  readonly connected: () => boolean;
}

const shared = (): number => {
  try {
    return Number(localStorage.getItem(TOUCHED) ?? 0);
  } catch {
    return 0;
  }
};

/** Watches for hands on any tab of this tablet. Gives the way to stop. */
export function watchHands({ idleMinutes, tell, leave, connected }: Watch): () => void {
  const idleMs = idleMinutes * 60_000;
  let touchedAt = Date.now();
  let toldAt = Date.now();
  const touched = (): void => {
    touchedAt = Date.now();
    if (touchedAt - toldAt < idleMs / SHARE) return;
    const before = toldAt;
    toldAt = touchedAt;
    try {
      localStorage.setItem(TOUCHED, String(touchedAt));
    } catch {
      // other tabs do not hear of it
    }
    void tell().catch(() => {
      toldAt = before; // told at the next touch
    });
  };
  const look = setInterval(() => {
    if (connected() && Date.now() - Math.max(touchedAt, shared()) > idleMs) leave();
  }, LOOK_MS);
  const touches = ['pointerdown', 'keydown', WORKED] as const;
  for (const kind of touches) addEventListener(kind, touched, { capture: true, passive: true });
  return () => {
    clearInterval(look);
    for (const kind of touches) removeEventListener(kind, touched, { capture: true });
  };
}
