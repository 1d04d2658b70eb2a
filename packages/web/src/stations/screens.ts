/** The screens of all stations: to add a station, its folder and its line here. */
import type { ScreenAt } from '../app/screenAt.ts';
import { access } from './access/screens.ts';
import { bench } from './bench/screens.ts';
import { house } from './house/screens.ts';
import { larder } from './larder/screens.ts';
import { ledger } from './ledger/screens.ts';
import { pots } from './pots/screens.ts';
import { receive } from './receive/screens.ts';

/** To look at while building; no house has it. */
const kit: readonly ScreenAt[] = import.meta.env.DEV
  ? [{ path: '/kit', title: 'Kit', bare: true, script: () => import('../kit/KitPage.tsx') }]
  : [];

export const screens: readonly ScreenAt[] = [receive, bench, larder, pots, ledger, house, access, kit].flat();

/** Where an address leads that no screen stands at. */
export const FIRST = '/bench';
