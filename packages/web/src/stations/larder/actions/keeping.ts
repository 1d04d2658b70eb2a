import type { Answer, Ask } from '@zabrik/contract';
import type { api } from '../../../app/endpoints.ts';

export type LotRead = Answer<typeof api.larder.read>;
export type KeepBody = Ask<typeof api.larder.keep>['body'];

/** A lot, and the command by which it is kept otherwise. */
export interface Keeping {
  readonly lot: LotRead;
  readonly keeping: { readonly keep: (body: KeepBody) => void; readonly pending: boolean };
}
