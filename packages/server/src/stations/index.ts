/** The stations this server has: to add one, its folder and its line here. */
import type { Makes } from '../jobs/jobs.ts';
import type { Reversals } from '../massledger/reverse.ts';
import { access } from './access/index.ts';
import { bench } from './bench/index.ts';
import { find } from './find/index.ts';
import { house } from './house/index.ts';
import { jobs } from './jobs/index.ts';
import { larder } from './larder/index.ts';
import { ledger } from './ledger/index.ts';
import { pots } from './pots/index.ts';
import { programs } from './programs/index.ts';
import { receive } from './receive/index.ts';
import { simulation } from './simulation/index.ts';
import type { Station } from './station.ts';

export const stations: readonly Station[] = [
  access,
  house,
  receive,
  bench,
  larder,
  pots,
  ledger,
  find,
  jobs,
  programs,
  simulation,
];

/** What all of them put back, by the kind of entry. */
export const reversals: Reversals = Object.assign({}, ...stations.map((s) => s.reversals ?? {})) as Reversals;

/** The files all of them make as jobs, by kind. */
export const makes = Object.assign({}, ...stations.map((s) => s.makes ?? {})) as Makes;
