import type { Answer, Asked, api } from '@zabrik/contract';
import type { InCommand, Kitchen } from '../../kitchen.ts';
import { takeBack } from '../../massledger/takeBack.ts';

export const reverse = (
  kitchen: Kitchen,
  command: InCommand,
  { params, body }: Asked<typeof api.ledger.reverse>,
): Promise<Answer<typeof api.ledger.reverse>> =>
  takeBack(kitchen.db, kitchen.putsBack, command, params.movementId, body.reason);
