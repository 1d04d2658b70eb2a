import type { Router } from 'express';
import type { Kitchen } from '../kitchen.ts';
import type { PutsBack } from '../massledger/takeBack.ts';

/** What the server asks of a station: its routes, and what it puts back when an entry of its own is taken back. */
export interface Station {
  readonly mount: (kitchen: Kitchen, router: Router) => void;
  readonly putsBack?: PutsBack;
}
