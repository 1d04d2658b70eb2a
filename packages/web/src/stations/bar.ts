/** The stations on the bar, in the order of work. Apart from their screens: those are known before the rest of the app is there. */
import type { OnTheBar } from '../app/onTheBar.ts';
import { bench } from './bench/bar.ts';
import { house } from './house/bar.ts';
import { larder } from './larder/bar.ts';
import { ledger } from './ledger/bar.ts';
import { pots } from './pots/bar.ts';
import { receive } from './receive/bar.ts';

export const bar: readonly OnTheBar[] = [receive, bench, larder, pots, ledger, house];
