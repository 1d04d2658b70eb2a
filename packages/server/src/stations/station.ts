import type { Router } from 'express';
import type { Makes } from '../jobs/jobs.ts';
import type { Kitchen } from '../kitchen.ts';
import type { PutsBack } from '../massledger/takeBack.ts';

/** What the server asks of a station: its routes, what it puts back when an entry of its own is taken back, and the files it makes as jobs. */
export interface Station {
  readonly mount: (kitchen: Kitchen, router: Router) => void;
  readonly putsBack?: PutsBack;
  readonly makes?: Partial<Makes>;
}
