import { screenFor } from '../app/screenAt.ts';
import { screens } from '../stations/screens.ts';

/** What the screen at an address is called; undefined where none stands. */
export const roomOf = (path: string): string | undefined => screenFor(screens, path)?.screen.title;
