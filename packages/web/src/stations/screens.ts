/** The screens of all stations: to add a station, its folder and its line here. */
import type { ScreenAt } from '../app/screenAt.ts';
import { access } from './access/screens.ts';
import { bench } from './bench/screens.ts';
import { help } from './help/screens.ts';
import { house } from './house/screens.ts';
import { larder } from './larder/screens.ts';
import { ledger } from './ledger/screens.ts';
import { pots } from './pots/screens.ts';
import { receive } from './receive/screens.ts';

export const screens: readonly ScreenAt[] = [receive, bench, larder, pots, ledger, house, help, access].flat();

/** Where an address leads that no screen stands at. */
export const FIRST = '/bench';
