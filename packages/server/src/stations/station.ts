import type { Router } from 'express';
import type { Makes } from '../jobs/jobs.ts';
import type { Reversals } from '../massledger/reverse.ts';
import type { Services } from '../services.ts';

/** What the server asks of a station: its routes, what it puts back when an entry of its own is taken back, and the files it makes as jobs. */
export interface Station {
  readonly mount: (services: Services, router: Router) => void;
  readonly reversals?: Reversals;
  readonly makes?: Partial<Makes>;
}
