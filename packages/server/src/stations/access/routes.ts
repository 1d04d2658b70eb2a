import { randomBytes } from 'node:crypto';
import { api, type Me, usualIdleMinutes } from '@zabrik/contract';
import { onShift } from '@zabrik/core';
import { parse as parseCookies } from 'cookie';
import type { Request, Router } from 'express';
import type { Sequelize } from 'sequelize';
import { doorCount, doorLimit } from '../../access/doorLimit.ts';
import { newPinHash } from '../../access/pins.ts';
import { lifeOf } from '../../access/session.ts';
import { deviceRow, rememberDevice, signIn } from '../../access/signIn.ts';
import { clockIn, readHouse } from '../../db/house.ts';
import { HouseTable } from '../../db/models/house.ts';
import { PersonTable } from '../../db/models/person.ts';
import { rowsOf, serverRows } from '../../db/rows.ts';
import { select, selectOne } from '../../db/select.ts';
import { mountOpen, mountRead } from '../../http/mount.ts';
import { Problem } from '../../http/problem.ts';
import type { Actor, Services } from '../../services.ts';
import { newRecovery, readSetUp, recover, setUp } from './setUp.ts';
import { tabletRoutes } from './tablets.ts';

/** The cookie by which a tablet of the house is known at its door. It opens nothing: it only keeps strangers' guesses apart. */
const DEVICE = 'zabrik-device';
const YEAR_MS = 365 * 86_400_000;
const deviceOf = (request: Request): string | undefined => {
  const token = parseCookies(request.headers.cookie ?? '')[DEVICE];
  return token !== undefined && /^[\w-]{32}$/.test(token) ? token : undefined;
};

const me = async (db: Sequelize, actor: Actor): Promise<Me> => {
  const house = await serverRows(db, HouseTable).one({ id: actor.houseId });
  if (house === undefined) throw new Problem('not_signed_in');
  const person = await rowsOf(db, PersonTable, actor).one({ id: actor.personId });
  const restored = await selectOne<{ id: string; stateAt: Date }>(
    db,
    'select id, state_at as "stateAt" from restored order by at desc limit 1',
    [],
  );
  return {
    person: { id: actor.personId, name: actor.name, role: actor.role },
    house: { id: house.id, slug: house.slug, name: house.name },
    mustNotTouch: person?.mustNotTouch ?? [],
    firstDay: person?.firstDayOverAt === null,
    restored: restored === undefined ? null : { id: restored.id, stateAt: restored.stateAt.toISOString() },
  };
};

export function accessRoutes(services: Services, router: Router): void {
  mountOpen(router, api.access.houses, async () => {
    const houses = await serverRows(services.db, HouseTable).all({}, { order: ['createdAt'] });
    return { houses: houses.map(({ slug, name }) => ({ slug, name })) };
  });

  mountOpen(router, api.access.signInOptions, async ({ params, request }) => {
    const house = await serverRows(services.db, HouseTable).one({ slug: params.slug });
    if (house === undefined) throw new Problem('not_found', 'There is no house by that name on this machine.');
    const people = await rowsOf(services.db, PersonTable, { houseId: house.id }).all(
      { leftAt: null },
      { order: ['name'] },
    );
    const tablet = await deviceRow(services.db, house.id, deviceOf(request));
    const { weekday, time } = clockIn(house.timezone, services.clock());
    return {
      house: { slug: house.slug, name: house.name },
      tablet: tablet?.name ?? null,
      people: people
        .filter(({ pinHash, passwordHash }) => pinHash !== null || passwordHash !== null)
        .map(({ id, name, role, passwordHash, shifts }) => ({
          id,
          name,
          role,
          hasPassword: passwordHash !== null,
          ofThisTablet: tablet?.people.includes(id) === true,
          // when somebody works is nobody's business in the street
          onShift: tablet !== undefined && onShift(shifts, weekday, time),
        })),
      demoPin: services.config.demoPin ?? null,
    };
  });

  router.post(api.access.signIn.path, doorLimit(services.db));
  mountOpen(router, api.access.signIn, async ({ body, request }) => {
    const actor = await signIn(services.db, services.clock(), body.personId, body, deviceOf(request));
    return letIn(request, actor);
  });

  /** How long whoever this is may leave their tablet alone. */
  const idleMinutesOf = async (actor: Actor): Promise<number> =>
    ((await readHouse(services.db, actor)).settings.idleMinutes ?? usualIdleMinutes)[actor.role];

  /** Whoever has proved who they are: the tablet is known to the house from now on, and the session is theirs. */
  const letIn = async (request: Request, actor: Actor): Promise<Me> => {
    const device = deviceOf(request) ?? randomBytes(24).toString('base64url');
    await rememberDevice(services.db, actor.houseId, device, services.clock());
    request.res?.cookie(DEVICE, device, {
      httpOnly: true,
      sameSite: 'strict',
      secure: request.secure,
      maxAge: YEAR_MS,
      path: '/api/v1',
    });
    // one of before was sent to the door's own address alone
    request.res?.clearCookie(DEVICE, { path: '/api/v1/session' });
    await new Promise<void>((resolve, reject) => {
      request.session.regenerate((error: unknown) => (error == null ? resolve() : reject(error)));
    });
    request.session.who = actor;
    request.session.tablet = device;
    request.session.since = Date.now();
    request.session.cookie.maxAge = lifeOf(await idleMinutesOf(actor), request.session.since, request.session.since);
    // kept before the answer starts: whoever reads the cookie in its head may use it at once
    await new Promise<void>((resolve, reject) => {
      request.session.save((error: unknown) => (error == null ? resolve() : reject(error)));
    });
    return me(services.db, actor);
  };

  const codeTried = doorCount(services.db, 'code');
  mountOpen(router, api.access.setUpOpen, ({ query }) => readSetUp(services, query.timezone));
  mountOpen(router, api.access.setUp, async ({ body, request }) => {
    await codeTried(request);
    const { actor, recoveryCode } = await setUp(services, body);
    await services.placeDevices(actor.houseId);
    return { me: await letIn(request, actor), recoveryCode };
  });
  mountOpen(router, api.access.recover, async ({ body, request }) => {
    await codeTried(request);
    return { recoveryCode: await recover(services, body) };
  });
  mountRead(services, router, api.access.newRecoveryCode, async (actor) => ({
    recoveryCode: await newRecovery(services, actor.houseId),
  }));
  mountRead(services, router, api.access.changePin, async (actor, { body, request }) => {
    // a wrong one counts as a wrong try at the door
    await signIn(services.db, services.clock(), actor.personId, { pin: body.pin }, deviceOf(request));
    const pinHash = await newPinHash(services.db, actor, actor.personId, body.next);
    await rowsOf(services.db, PersonTable, actor).change({ id: actor.personId }, { pinHash });
    // the database ends every session of whose PIN has changed: this one is theirs all the same
    await letIn(request, actor);
    return { done: true } as const;
  });

  mountRead(services, router, api.access.me, (actor) => me(services.db, actor));

  mountRead(services, router, api.access.signOut, async (_who, { request }) => {
    await new Promise<void>((resolve, reject) => {
      request.session.destroy((error: unknown) => (error == null ? resolve() : reject(error)));
    });
    return { done: true } as const;
  });

  mountRead(services, router, api.access.stillHere, async (actor, { request: { session } }) => {
    const now = Date.now();
    session.hereAt = now;
    session.cookie.maxAge = lifeOf(await idleMinutesOf(actor), session.since ?? now, now);
    return { until: new Date(now + session.cookie.maxAge).toISOString() };
  });

  mountRead(services, router, api.access.signedIn, async (actor, { request }) => {
    const rows = await select<{ sid: string; actor: Actor; since: number; until: Date }>(
      services.db,
      `select sid, sess->'who' as actor, (sess->>'since')::bigint as since, expire as until from session
       where sess->'who'->>'houseId' = $1 and ($2::text is null or sess->'who'->>'personId' = $2) and expire > now() and sess->>'since' is not null
       order by (sess->>'since')::bigint desc limit 200`,
      [actor.houseId, actor.role === 'head-chef' ? null : actor.personId],
    );
    return {
      sessions: rows.map((r) => ({
        person: { id: r.actor.personId, name: r.actor.name, role: r.actor.role },
        since: new Date(r.since).toISOString(),
        until: r.until.toISOString(),
        here: r.sid === request.sessionID,
      })),
    };
  });

  mountRead(services, router, api.access.signOutPerson, async (actor, { params }) => {
    const person = await rowsOf(services.db, PersonTable, actor).one({ id: params.personId });
    if (person === undefined) throw new Problem('not_found');
    if (person.id !== actor.personId && actor.role !== 'head-chef') throw new Problem('not_your_role');
    const ended = await select(
      services.db,
      `delete from session where sess->'who'->>'personId' = $1 and sess->'who'->>'houseId' = $2 returning sid`,
      [params.personId, actor.houseId],
    );
    return { ended: ended.length };
  });

  tabletRoutes(services, router, deviceOf);

  mountRead(services, router, api.access.firstDayOver, async (actor) => {
    await rowsOf(services.db, PersonTable, actor).change({ id: actor.personId }, { firstDayOverAt: services.clock() });
    return { done: true } as const;
  });

  mountRead(services, router, api.access.known, async (actor, { body }) => {
    // a weighing is its own record: its key is its id
    const rows = await select<{ id: string }>(
      services.db,
      `select id from command where id = any($1::uuid[]) and house_id = $2
       union select id from weighing where id = any($1::uuid[]) and house_id = $2`,
      [body.keys, actor.houseId],
    );
    const known = new Set(rows.map((r) => r.id));
    return { unknown: body.keys.filter((key) => !known.has(key)) };
  });
}
