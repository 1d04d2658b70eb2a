import type { Answer, Ask, Endpoint, EndpointId, ProblemCode, ProblemDocument } from '@zabrik/contract';
import { noteDone } from './done.ts';
import { takeEarly } from './early.ts';
import { intentOf, keyOf, settled } from './intents.ts';
import { noteAnswered, uncovered } from './lock.ts';
import { patience } from './progress.ts';

/** A refusal of the server, with the sentence to show and the field to put right where there is one. */
export class Refused extends Error {
  readonly code: ProblemCode;
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

/** Someone else has signed in on this device, in another tab: who is at work is asked anew. */
export const SOMEONE_ELSE = 'zabrik-someone-else';

const LATE_MS = 15_000;

/** What goes with a command. */
interface Marks {
  /** Makes a repeat harmless. */
  readonly key?: string | undefined;
  /** Whose work it is, where it was kept before: the server takes it under that person's sign-in only. */
  readonly personId?: string | undefined;
  /** How long ago it was done, where that is longer than sending takes: it counts from then. */
  readonly waitedMs?: number | undefined;
}

/** Sends a request and reads the answer or the refusal. */
export async function send(
  method: string,
  url: string,
  body: unknown,
  { key, personId, waitedMs }: Marks = {},
): Promise<unknown> {
  const patient = patience(LATE_MS, key);
  try {
    return await sendWhile(patient.signal, method, url, body, { key, personId, waitedMs });
  } finally {
    patient.end();
  }
}

async function sendWhile(
  signal: AbortSignal,
  method: string,
  url: string,
  body: unknown,
  { key, personId, waitedMs }: Marks,
): Promise<unknown> {
  let response: Response;
  try {
    const early = method === 'get' ? takeEarly(url) : undefined;
    response = await (early ??
      fetch(url, {
        method: method.toUpperCase(),
        headers: {
          ...(body === undefined ? {} : { 'content-type': 'application/json' }),
          ...(key === undefined ? {} : { 'idempotency-key': key }),
          ...(personId === undefined ? {} : { 'zabrik-person': personId }),
          ...(waitedMs === undefined ? {} : { 'zabrik-waited': String(waitedMs) }),
        },
        ...(body === undefined ? {} : { body: JSON.stringify(body) }),
        signal,
      }));
  } catch {
    throw new Unreachable();
  }
  const read: unknown = await response.json().catch(() => undefined);
  if (response.ok) return read;
  if (typeof read === 'object' && read !== null && 'code' in read) {
    const refusal = new Refused(read as ProblemDocument);
    if (refusal.code === 'not_signed_in') dispatchEvent(new Event(SIGNED_OUT));
    if (refusal.code === 'other_person') dispatchEvent(new Event(SOMEONE_ELSE));
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

export function addressOf(endpoint: Pick<Endpoint, 'path'>, { params, query }: Parts): string {
  const path = endpoint.path.replace(/:(\w+)/g, (_, name: string) => encodeURIComponent(params?.[name] ?? ''));
  const search = new URLSearchParams();
  // what was kept on this device comes back with null where nothing was
  for (const [name, value] of Object.entries(query ?? {}))
    if (value !== undefined && value !== null && value !== '') search.set(name, String(value));
  return `/api/v1${path}${search.size > 0 ? `?${search}` : ''}`;
}

/** Whether a refusal is the end of it: the server looked at the command and will not do it. Signed out, someone else, too many, or broken is not. */
export const isDefinite = (error: unknown): error is Refused =>
  error instanceof Refused &&
  error.status < 500 &&
  ![401, 408, 429].includes(error.status) &&
  error.code !== 'other_person';

/** Whether a read may be answered the next time: the server was not there, or its database was not. */
export const worthAskingAgain = (error: unknown): boolean => !(error instanceof Refused) || error.status >= 500;

const signedOut = (): Refused => new Refused({ code: 'not_signed_in', title: 'Sign in first.', status: 401 });

/** Sends what needs someone signed in. While the page is covered it waits; what met the end of the session goes again once its person is back. */
async function sendSignedIn(method: string, url: string, body: unknown, marks: Marks): Promise<unknown> {
  const asked = async (again: boolean): Promise<unknown> => {
    const personId = await uncovered();
    if (personId === 'gone') throw signedOut();
    try {
      const answer = await send(method, url, body, personId === undefined ? marks : { personId, ...marks });
      noteAnswered();
      return answer;
    } catch (error) {
      if (again && error instanceof Refused && error.code === 'not_signed_in') return asked(false);
      throw error;
    }
  };
  return asked(true);
}

/** Who is signed in, and signing in and out, are asked whatever the page looks like. */
const isOfAccess = ({ id }: Pick<Endpoint, 'id'>): boolean => id.startsWith('access.');

/**
 * Calls an endpoint of the contract. A command goes out under the key of its intent: pressed again after an answer that was lost, it is the
 * same command. A key is given only by what keeps its own, as the outbox does.
 */
export async function call<E extends Endpoint>(endpoint: E, ask: Ask<E>, key?: string): Promise<Answer<E>> {
  const parts = ask as Parts;
  const address = addressOf(endpoint, parts);
  const sent = isOfAccess(endpoint) ? send : sendSignedIn;
  if (!endpoint.command || key !== undefined)
    return (await sent(endpoint.method, address, parts.body, { key })) as Answer<E>;
  const intent = intentOf(endpoint.id, parts);
  const sentAs = keyOf(intent);
  try {
    const answer = (await sent(endpoint.method, address, parts.body, { key: sentAs })) as Answer<E>;
    settled(intent);
    noteDone({
      key: sentAs,
      endpoint: endpoint.id as EndpointId,
      params: parts.params ?? {},
      body: parts.body,
      about: Object.values(parts.params ?? {})[0] ?? '',
      says: endpoint.id,
    });
    return answer;
  } catch (error) {
    if (isDefinite(error)) settled(intent);
    throw error;
  }
}
