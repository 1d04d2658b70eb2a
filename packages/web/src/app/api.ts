import type { Answer, Ask, Endpoint, ProblemDocument } from '@zabrik/contract';
import { v7 as uuidv7 } from 'uuid';
import { takeEarly } from './early.ts';

/** A refusal of the server, with the sentence to show and the field to put right where there is one. */
export class Refused extends Error {
  readonly code: string;
  readonly status: number;
  readonly field: string | undefined;
  readonly fields: readonly { readonly path: string; readonly message: string }[];

  constructor(
    document: Pick<ProblemDocument, 'code' | 'title' | 'status'> & {
      readonly detail?: string | undefined;
      readonly field?: string | undefined;
      readonly fields?: ProblemDocument['fields'];
    },
  ) {
    super(document.detail ?? document.title);
    this.name = 'Refused';
    this.code = document.code;
    this.status = document.status;
    this.field = document.field;
    this.fields = document.fields ?? [];
  }
}

/** The server cannot be reached: no network, or it is down. Worth trying again. */
export class Unreachable extends Error {
  constructor() {
    super('No connection to the kitchen’s server.');
    this.name = 'Unreachable';
  }
}

/** The session has ended under someone's hands: the shell asks them to sign in again, and what waits keeps waiting. */
export const SIGNED_OUT = 'zabrik-signed-out';

const LATE_MS = 15_000;

/** Sends a request and reads the answer or the refusal. `key` makes a repeat harmless. */
export async function send(method: string, url: string, body: unknown, key: string | undefined): Promise<unknown> {
  let response: Response;
  try {
    const early = method === 'get' ? takeEarly(url) : undefined;
    response = await (early ??
      fetch(url, {
        method: method.toUpperCase(),
        headers: {
          ...(body === undefined ? {} : { 'content-type': 'application/json' }),
          ...(key === undefined ? {} : { 'idempotency-key': key }),
        },
        ...(body === undefined ? {} : { body: JSON.stringify(body) }),
        signal: AbortSignal.timeout(LATE_MS),
      }));
  } catch {
    throw new Unreachable();
  }
  const read: unknown = await response.json().catch(() => undefined);
  if (response.ok) return read;
  if (typeof read === 'object' && read !== null && 'code' in read) {
    const refusal = new Refused(read as ProblemDocument);
    if (refusal.code === 'not_signed_in') dispatchEvent(new Event(SIGNED_OUT));
    throw refusal;
  }
  if (response.status >= 500) throw new Unreachable();
  throw new Refused({ code: 'broken', title: `The server answered ${response.status}.`, status: response.status });
}

interface Parts {
  readonly params?: Readonly<Record<string, string>>;
  readonly query?: Readonly<Record<string, unknown>>;
  readonly body?: unknown;
}

export function addressOf(endpoint: Endpoint, { params, query }: Parts): string {
  const path = endpoint.path.replace(/:(\w+)/g, (_, name: string) => encodeURIComponent(params?.[name] ?? ''));
  const search = new URLSearchParams();
  for (const [name, value] of Object.entries(query ?? {}))
    if (value !== undefined && value !== '') search.set(name, String(value));
  return `/api/v1${path}${search.size > 0 ? `?${search}` : ''}`;
}

/** Calls an endpoint of the contract. A command gets a fresh key unless one is given to repeat with. */
export async function call<E extends Endpoint>(endpoint: E, ask: Ask<E>, key?: string): Promise<Answer<E>> {
  const parts = ask as Parts;
  const used = endpoint.command ? (key ?? uuidv7()) : undefined;
  return (await send(endpoint.method, addressOf(endpoint, parts), parts.body, used)) as Answer<E>;
}
