import type { Answer, Ask } from '@zabrik/contract';
import type { api } from '../../../app/endpoints.ts';

export type LotRead = Answer<typeof api.larder.read>;
export type KeepBody = Ask<typeof api.larder.keep>['body'];

/** A lot, and the command by which it is kept otherwise. */
export interface Keeping {
  readonly lot: LotRead;
  readonly keeping: {
    /** `sent`: what the form does once it is in the records, or kept on this tablet. */
    readonly keep: (body: KeepBody, sent?: () => void) => void;
    readonly pending: boolean;
  };
}
