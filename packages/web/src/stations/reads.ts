/** What the screens of all stations open with: to add a station, its line here. */
import type { ReadsAt } from '../app/screenAt.ts';
import { benchReads } from './bench/reads.ts';
import { larderReads } from './larder/reads.ts';
import { ledgerReads } from './ledger/reads.ts';
import { potsReads } from './pots/reads.ts';
import { receiveReads } from './receive/reads.ts';

export const reads: ReadsAt = { ...receiveReads, ...benchReads, ...larderReads, ...potsReads, ...ledgerReads };
