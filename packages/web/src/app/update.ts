/** A new version of the app lies ready on this device: it is taken when nobody is in the middle of something, for it opens the page anew. */

/** Hands off for so long: nobody is in the middle of anything. */
const QUIET_MS = 120_000;
const LOOK_MS = 5_000;
const TYPED_INTO = 'input:not([type=checkbox], [type=radio], [type=search]), textarea';

interface Quiet {
  /** Opens the page anew with the new version. */
  readonly take: () => void;
  /** Work that only this page knows of, as a command on its way. */
  readonly busy: () => boolean;
}

/**
 * Watches from the beginning whether someone is in the middle of something. What it gives takes a new version once nothing was touched for two
 * minutes, no field has the caret, nothing typed stands in a field, and nothing is on its way.
 */
export function watchTyping(): (quiet: Quiet) => void {
  let touchedAt = Date.now();
  /** Fields somebody has typed into: as long as they stand there with something in them, it is not sent. */
  const typed = new Set<HTMLInputElement | HTMLTextAreaElement>();
  const touched = ({ type, target }: Event): void => {
    touchedAt = Date.now();
    if (type === 'input' && target instanceof Element && target.matches(TYPED_INTO))
      typed.add(target as HTMLInputElement);
  };
  for (const kind of ['pointerdown', 'keydown', 'input'])
    addEventListener(kind, touched, { capture: true, passive: true });
  const isTyping = (): boolean => {
    for (const field of typed) if (!field.isConnected || field.value === '') typed.delete(field);
    return typed.size > 0 || document.activeElement?.matches(TYPED_INTO) === true;
  };
  return ({ take, busy }) => {
    const look = setInterval(() => {
      if (Date.now() - touchedAt < QUIET_MS || isTyping() || busy()) return;
      clearInterval(look);
      take();
    }, LOOK_MS);
  };
}
