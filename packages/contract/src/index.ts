import { access } from './stations/access.ts';
import { bench } from './stations/bench.ts';
import { cutting } from './stations/cutting.ts';
import { find } from './stations/find.ts';
import { house } from './stations/house.ts';
import { jobs } from './stations/jobs.ts';
import { larder } from './stations/larder.ts';
import { ledger } from './stations/ledger.ts';
import { paper } from './stations/paper.ts';
import { pots } from './stations/pots.ts';
import { programs } from './stations/programs.ts';
import { receive } from './stations/receive.ts';
import { simulation } from './stations/simulation.ts';

export * from './endpoint.ts';
export * from './light.ts';
export * from './limits.ts';
export * from './live.ts';
export * from './plan.ts';
export * from './problems.ts';
export * from './roles.ts';
export * from './stations/access.ts';
export * from './stations/bench.ts';
export * from './stations/cutting.ts';
export * from './stations/find.ts';
export * from './stations/house.ts';
export * from './stations/jobs.ts';
export * from './stations/larder.ts';
export * from './stations/ledger.ts';
export * from './stations/paper.ts';
export * from './stations/pots.ts';
export * from './stations/programs.ts';
export * from './stations/receive.ts';
export * from './stations/simulation.ts';
export * from './units.ts';
export * from './waysOut.ts';

/** Every station of the API under its name. */
export const api = {
  access,
  house,
  receive,
  bench,
  cutting,
  larder,
  pots,
  ledger,
  find,
  paper,
  jobs,
  programs,
  simulation,
} as const;
