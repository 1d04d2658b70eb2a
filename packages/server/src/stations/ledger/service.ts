import type { Answer, Asked, api } from '@zabrik/contract';
import { reverseEntry } from '../../massledger/reverse.ts';
import type { InCommand, Services } from '../../services.ts';

export const reverse = (
  services: Services,
  command: InCommand,
  { params, body }: Asked<typeof api.ledger.reverse>,
): Promise<Answer<typeof api.ledger.reverse>> =>
  reverseEntry(services.db, services.reversals, command, params.movementId, body.reason);
