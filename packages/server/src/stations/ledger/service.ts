import type { Answer, Asked, api } from '@zabrik/contract';
import { takeBack } from '../../massledger/takeBack.ts';
import type { InCommand, Services } from '../../services.ts';

export const reverse = (
  services: Services,
  command: InCommand,
  { params, body }: Asked<typeof api.ledger.reverse>,
): Promise<Answer<typeof api.ledger.reverse>> =>
  takeBack(services.db, services.putsBack, command, params.movementId, body.reason);
