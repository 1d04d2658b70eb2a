import { createHash } from 'node:crypto';
import { pipeline } from 'node:stream/promises';
import { type Answer, type Asked, type Endpoint, type EndpointId, mayDo, type Topic, tokenMay } from '@zabrik/contract';
import type { Request, RequestHandler, Response, Router } from 'express';
import type { Sequelize, Transaction } from 'sequelize';
import { z } from 'zod';
import { forHouse } from '../db/houseScope.ts';
import { CommandTable } from '../db/models/command.ts';
import { rowsOf } from '../db/rows.ts';
import { selectOne } from '../db/select.ts';
import type { Actor, InCommand, Services } from '../services.ts';
import { fileHeaders, type GivenFile } from './file.ts';
import { shownTo } from './hideCosts.ts';
import { idsOf, timeIn } from './idsOf.ts';
import { mustBeKeepable } from './keepable.ts';
import { fieldsOf, isCollision, nothingChanged, Problem } from './problem.ts';
import { spool } from './spool.ts';

export interface Context<E extends Endpoint> extends Asked<E> {
  readonly request: Request;
}

const key = z.uuid();

function parse<T extends z.ZodType>(schema: T | undefined, value: unknown): z.output<T> | undefined {
  if (schema === undefined) return undefined;
  mustBeKeepable(value);
  const read = schema.safeParse(value);
  if (!read.success) throw new Problem('invalid', undefined, fieldsOf(read.error));
  return read.data;
}

const asked = <E extends Endpoint>(e: E, request: Request): Asked<E> =>
  ({
    params: parse(e.params, request.params),
    query: parse(e.query, request.query),
    body: parse(e.body, request.body ?? {}),
  }) as Asked<E>;

export const signedIn = (request: Request): Actor => {
  const { who: actor } = request.session;
  if (actor === undefined) throw new Problem('not_signed_in');
  return actor;
};

/** Whose command it is, as the device that kept it says. */
export const PERSON_HEADER = 'zabrik-person';

/** How long a command waited on its device before it was sent, milliseconds by the device's own clock. */
export const WAITED_HEADER = 'zabrik-waited';
/** A tablet that lay in a drawer for longer: then what it kept counts from when it arrived. */
const LONGEST_WAIT_MS = 14 * 86_400_000;

/** When a command was done: now, or earlier by as long as it waited. A device's clock may be wrong; how far it has gone on is not. */
export function doneAt(waited: string | undefined, now: Date): Date {
  const ms = waited !== undefined && /^\d{1,12}$/.test(waited) ? Number(waited) : 0;
  return ms > LONGEST_WAIT_MS ? now : new Date(now.getTime() - ms);
}

const permitted = (e: Endpoint, request: Request): Actor => {
  const actor = signedIn(request);
  const meant = request.header(PERSON_HEADER);
  if (meant !== undefined && meant !== actor.personId) throw new Problem('other_person');
  if (!mayDo(actor.role, e.id as EndpointId)) throw new Problem('not_your_role');
  if (request.token !== undefined && !tokenMay(request.token, e)) throw new Problem('not_for_programs');
  return actor;
};

/** Checks the answer against the contract before it leaves: a bad answer is our fault (500), never the client's puzzle. */
const send = <E extends Endpoint>(e: E, response: Response, answer: unknown): void => {
  const checked = e.answer.safeParse(answer);
  if (!checked.success)
    throw new Error(
      `${e.id} gave an answer outside the contract: ${fieldsOf(checked.error)
        .map((f) => `${f.path}: ${f.message}`)
        .join('; ')}`,
    );
  response.json(checked.data);
};

const at = (router: Router, e: Endpoint, handler: RequestHandler): void => {
  router[e.method](e.path, handler);
};

/** How long a download may take nothing at all. */
const STALLED_MS = 60_000;

/** A read that gives a file. One in parts is written down here first: what breaks in the making is an answer of its own, never half a file. */
export function mountFile<E extends Endpoint>(
  services: Services,
  router: Router,
  e: E,
  handle: (actor: Actor, context: Context<E>) => Promise<GivenFile>,
): void {
  at(router, e, async (request, response) => {
    const actor = permitted(e, request);
    const { type, name, body, inline } = await forHouse(actor.houseId, async () => {
      await shownTo(services.db, actor, e.id, null);
      const given = await handle(actor, { ...asked(e, request), request });
      const { body: whole } = given;
      return typeof whole === 'string' || whole instanceof Uint8Array
        ? { ...given, body: whole }
        : { ...given, body: await spool(whole) };
    });
    if (typeof body === 'string' || body instanceof Uint8Array) {
      fileHeaders(response, type, name, inline === true);
      response.end(body);
      return;
    }
    fileHeaders(response, type, name, inline === true);
    response.setTimeout(STALLED_MS, () => response.destroy());
    // whoever hangs up in the middle has what he has
    await pipeline(body, response).catch(() => undefined);
  });
}

/** An endpoint nobody needs to be signed in for. */
export function mountOpen<E extends Endpoint>(
  router: Router,
  e: E,
  handle: (context: Context<E>) => Promise<Answer<E>>,
): void {
  at(router, e, async (request, response) => {
    if (request.token !== undefined && !tokenMay(request.token, e)) throw new Problem('not_for_programs');
    send(e, response, await handle({ ...asked(e, request), request }));
  });
}

/** A read, or an action outside the database. */
export function mountRead<E extends Endpoint>(
  services: Services,
  router: Router,
  e: E,
  handle: (actor: Actor, context: Context<E>) => Promise<Answer<E>>,
): void {
  at(router, e, async (request, response) => {
    const actor = permitted(e, request);
    const answer = await forHouse(actor.houseId, async () =>
      shownTo(services.db, actor, e.id, await handle(actor, { ...asked(e, request), request })),
    );
    if (isProgram(request)) response.setHeader('etag', tagOf(answer));
    send(e, response, answer);
  });
}

/** Others' programs ask again and again: told by a tag what they have already, they get 304. A page has its events, and is not made to wait for a sum. */
const isProgram = (request: Request): boolean =>
  request.method === 'GET' && request.header('sec-fetch-site') === undefined;
const tagOf = (answer: unknown): string =>
  `"${createHash('sha256').update(JSON.stringify(answer)).digest('base64url').slice(0, 27)}"`;

const waitedOf = (request: Request): string | undefined => request.header(WAITED_HEADER);

const commandKey = (request: Request): string => {
  const read = key.safeParse(request.header('idempotency-key'));
  if (!read.success) throw new Problem('key_missing');
  return read.data;
};

/**
 * A command: one transaction that does the work and keeps its answer under the client's key. A repeat of the key gets the first
 * answer; the same key for other work is refused. After the commit every screen of the house is told, and `committed` is called, for a repeat too.
 */
export function mountCommand<E extends Endpoint>(
  services: Services,
  router: Router,
  e: E,
  topics: readonly Topic[],
  work: (command: InCommand, asked: Asked<E>) => Promise<Answer<E>>,
  committed: (actor: Actor, answer: Answer<E>) => void = () => undefined,
): void {
  at(router, e, async (request, response) => {
    const actor = permitted(e, request);
    const commandId = commandKey(request);
    const question = asked(e, request);
    const answer = await forHouse(actor.houseId, () =>
      runCommand(services, actor, commandId, e.id, question, waitedOf(request), (command) => work(command, question)),
    );
    committed(actor, answer);
    services.announce(actor.houseId, topics);
    send(e, response, answer);
  });
}

/**
 * A command with something to do outside the database first, such as printing: that is done without a transaction open and without a row
 * locked, and not at all when the key was answered before. The same key come again while that is being done waits for it and does not
 * do it twice (in this process; a balancer that holds a person to one process keeps it so). What it throws leaves nothing written.
 */
export function mountPrepared<E extends Endpoint, P>(
  services: Services,
  router: Router,
  e: E,
  topics: readonly Topic[],
  prepare: (actor: Actor, asked: Asked<E>, commandId: string) => Promise<P>,
  work: (command: InCommand, asked: Asked<E>, prepared: P) => Promise<Answer<E>>,
): void {
  const being = new Map<string, Promise<Answer<E>>>();
  at(router, e, async (request, response) => {
    const actor = permitted(e, request);
    const commandId = commandKey(request);
    const question = asked(e, request);
    const mark = fingerprintOf(e.id, question);
    const mine = [actor.houseId, actor.personId, commandId, mark].join(' ');
    const once = (): Promise<Answer<E>> =>
      forHouse(actor.houseId, async () => {
        const before = await answeredBefore<Answer<E>>(services.db, actor, commandId, mark);
        if (before !== undefined) return before;
        const prepared = await prepare(actor, question, commandId);
        return runCommand(services, actor, commandId, e.id, question, waitedOf(request), (command) =>
          work(command, question, prepared),
        );
      });
    const doing = being.get(mine) ?? once().finally(() => being.delete(mine));
    being.set(mine, doing);
    const answer = await doing;
    services.announce(actor.houseId, topics);
    send(e, response, answer);
  });
}

/** What a command was asked with, where that was in words of before. */
const FORGOTTEN = '';

const fingerprintOf = (endpoint: string, question: unknown): string =>
  createHash('sha256')
    .update(JSON.stringify([endpoint, question]))
    .digest('hex');

/** The first answer of a key. Errors: `key_reused` when it was for something else. */
async function answeredBefore<A>(
  db: Sequelize,
  actor: Actor,
  commandId: string,
  fingerprint: string,
  transaction?: Transaction,
): Promise<A | undefined> {
  const before = await selectOne<{ house_id: string; fingerprint: string; answer: A | null }>(
    db,
    'select house_id, fingerprint, answer from command where id = $1 and keyed_at = time_in($1)',
    [commandId],
    transaction,
  );
  if (before === undefined) return undefined;
  const same = before.fingerprint === fingerprint || before.fingerprint === FORGOTTEN;
  if (before.house_id !== actor.houseId || !same) throw new Problem('key_reused');
  if (before.answer === null) throw new Problem('done_before');
  return before.answer;
}

export async function runCommand<A>(
  services: Services,
  actor: Actor,
  commandId: string,
  endpoint: string,
  question: unknown,
  waited: string | undefined,
  work: (command: InCommand) => Promise<A>,
): Promise<A> {
  const { db } = services;
  const fingerprint = fingerprintOf(endpoint, question);
  let written = false;
  const once = async (transaction: Transaction): Promise<A> => {
    await db.query('select pg_advisory_xact_lock(hashtextextended($1, 0))', { bind: [commandId], transaction });
    const before = await answeredBefore<A>(db, actor, commandId, fingerprint, transaction);
    if (before !== undefined) return before;
    const at = doneAt(waited, services.clock());
    const answer = await work({ actor, houseId: actor.houseId, commandId, at, newId: idsOf(commandId), transaction });
    const { houseId, personId } = actor;
    const commands = rowsOf(db, CommandTable, { houseId, transaction });
    await commands.add({ id: commandId, keyedAt: timeIn(commandId), endpoint, fingerprint, answer, personId, at });
    written = true;
    return answer;
  };
  await mustHaveRoom(services);
  for (let tries = 1; ; tries += 1) {
    try {
      return await db.transaction(once);
    } catch (error) {
      // two wanted the same at the same moment: nothing of this one was kept, and the other is done by now
      if (isCollision(error) && tries < TRIES) continue;
      // once all is written, only the database knows whether it was kept: the repeat under the same key finds out
      throw written ? error : nothingChanged(error);
    }
  }
}

/** How often a command is begun before it is said that others are in the way. */
const TRIES = 2;

/** Errors: `disk_full`. */
export async function mustHaveRoom({ disk }: Services): Promise<void> {
  if (await disk.isFull()) throw new Problem('disk_full');
}
