/** The stations this server has: to add one, its folder and its line here. */
import type { PutsBack } from '../massledger/takeBack.ts';
import { access } from './access/index.ts';
import { bench } from './bench/index.ts';
import { house } from './house/index.ts';
import { larder } from './larder/index.ts';
import { ledger } from './ledger/index.ts';
import { pots } from './pots/index.ts';
import { receive } from './receive/index.ts';
import { simulation } from './simulation/index.ts';
import type { Station } from './station.ts';

export const stations: readonly Station[] = [access, house, receive, bench, larder, pots, ledger, simulation];

/** What all of them put back, by the kind of entry. */
export const putsBack: PutsBack = Object.assign({}, ...stations.map((s) => s.putsBack ?? {})) as PutsBack;
