import type { z } from 'zod';
import type { May } from './roles.ts';

/** Where a request goes: the part of an endpoint a caller needs at run time. */
export interface Route {
  /** Its station and its name in it: `bench.weigh`. */
  readonly id: string;
  readonly method: 'get' | 'post' | 'delete';
  /** Under /api/v1, with :name for each parameter. */
  readonly path: string;
  /**
   * Changes something: needs an Idempotency-Key, and a repeat of the key gets the first answer. `may-wait`: nothing of its answer is needed to
   * go on, so a tablet without the server keeps it and sends it later.
   */
  readonly command: boolean | 'may-wait';
}

/** One request and its answer. The only definition of it: the server validates with it, the web calls with it, the document shows it. */
export interface Endpoint extends Route {
  readonly may: May;
  readonly summary: string;
  readonly params?: z.ZodObject;
  readonly query?: z.ZodObject;
  readonly body?: z.ZodType;
  readonly answer: z.ZodType;
  /** Gives a file of this type instead of JSON; `answer` is then nothing. */
  readonly file?:
    | 'application/pdf'
    | 'text/csv'
    | 'application/ld+json'
    | 'application/json'
    | 'application/octet-stream'
    | 'image/*';
  /** Takes more than the usual 100 kB, bytes. */
  readonly takesBytes?: number;
}

type Parsed<T> = T extends z.ZodType ? z.output<T> : undefined;
type Sent<T> = T extends z.ZodType ? z.input<T> : undefined;

/** What a handler is given, parsed. */
export interface Asked<E extends Endpoint> {
  readonly params: Parsed<E['params']>;
  readonly query: Parsed<E['query']>;
  readonly body: Parsed<E['body']>;
}

/** What a caller passes: only the parts the endpoint has. */
export type Ask<E extends Endpoint> = (E['params'] extends z.ZodType
  ? { readonly params: Sent<E['params']> }
  : object) &
  (E['query'] extends z.ZodType ? { readonly query?: Sent<E['query']> } : object) &
  (E['body'] extends z.ZodType ? { readonly body: Sent<E['body']> } : object);

export type Answer<E extends Endpoint> = z.output<E['answer']>;

export const endpoint = <const E extends Endpoint>(e: E): E => e;
