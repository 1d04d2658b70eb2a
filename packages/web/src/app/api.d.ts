import type { Answer, Ask, Endpoint, ProblemDocument } from '@zabrik/contract';
/** A refusal of the server, with the sentence to show and the field to put right where there is one. */
export declare class Refused extends Error {
  readonly code: string;
  readonly status: number;
  readonly field: string | undefined;
  readonly fields: readonly {
    readonly path: string;
    readonly message: string;
  }[];
  constructor(
    document: Pick<ProblemDocument, 'code' | 'title' | 'status'> & {
      readonly detail?: string | undefined;
      readonly field?: string | undefined;
      readonly fields?: ProblemDocument['fields'];
    },
  );
}
/** The server cannot be reached: no network, or it is down. Worth trying again. */
export declare class Unreachable extends Error {
  constructor();
}
/** The session has ended under someone's hands: the shell asks them to sign in again, and what waits keeps waiting. */
export declare const SIGNED_OUT = 'zabrik-signed-out';
/** Sends a request and reads the answer or the refusal. `key` makes a repeat harmless. */
export declare function send(method: string, url: string, body: unknown, key: string | undefined): Promise<unknown>;
interface Parts {
  readonly params?: Readonly<Record<string, string>>;
  readonly query?: Readonly<Record<string, unknown>>;
  readonly body?: unknown;
}
export declare function addressOf(endpoint: Endpoint, { params, query }: Parts): string;
/** Calls an endpoint of the contract. A command gets a fresh key unless one is given to repeat with. */
export declare function call<E extends Endpoint>(endpoint: E, ask: Ask<E>, key?: string): Promise<Answer<E>>;
//# sourceMappingURL=api.d.ts.map
