import { randomBytes } from 'node:crypto';
import { api, type Me } from '@zabrik/contract';
import { parse as parseCookies } from 'cookie';
import type { Request, Router } from 'express';
import { rateLimit } from 'express-rate-limit';
import { rememberDevice, signIn } from '../../access/signIn.ts';
import { HouseRow, PersonRow } from '../../db/models.ts';
import { mountOpen, mountRead } from '../../http/mount.ts';
import { Problem } from '../../http/problem.ts';
import type { Kitchen, Who } from '../../kitchen.ts';

/** The cookie by which a tablet of the house is known at its door. It opens nothing: it only keeps strangers' guesses apart. */
const DEVICE = 'zabrik-device';
const YEAR_MS = 365 * 86_400_000;
const deviceOf = (request: Request): string | undefined => {
  const token = parseCookies(request.headers.cookie ?? '')[DEVICE];
  return token !== undefined && /^[\w-]{32}$/.test(token) ? token : undefined;
};

const me = async (who: Who): Promise<Me> => {
  const house = await HouseRow.findByPk(who.houseId);
  if (house === null) throw new Problem('not_signed_in');
  return {
    person: { id: who.personId, name: who.name, role: who.role },
    house: { id: house.id, slug: house.slug, name: house.name },
  };
};

export function accessRoutes(kitchen: Kitchen, router: Router): void {
  mountOpen(router, api.access.houses, async () => {
    const houses = await HouseRow.findAll({ order: ['createdAt'] });
    return { houses: houses.map(({ slug, name }) => ({ slug, name })) };
  });

  mountOpen(router, api.access.door, async ({ params }) => {
    const house = await HouseRow.findOne({ where: { slug: params.slug } });
    if (house === null) throw new Problem('not_found', 'There is no house by that name on this machine.');
    const people = await PersonRow.findAll({ where: { houseId: house.id }, order: ['name'] });
    return {
      house: { slug: house.slug, name: house.name },
      people: people.map(({ id, name, role, passwordHash }) => ({
        id,
        name,
        role,
        hasPassword: passwordHash !== null,
      })),
      demoPin: kitchen.config.demoPin ?? null,
    };
  });

  router.post(
    api.access.signIn.path,
    rateLimit({
      windowMs: 60_000,
      limit: 60,
      standardHeaders: 'draft-8',
      legacyHeaders: false,
      handler: () => {
        throw new Problem('too_many');
      },
    }),
  );
  mountOpen(router, api.access.signIn, async ({ body, request }) => {
    const token = deviceOf(request);
    const who = await signIn(kitchen.db, kitchen.clock(), body.personId, body, token);
    const device = token ?? randomBytes(24).toString('base64url');
    await rememberDevice(kitchen.db, who.houseId, device);
    request.res?.cookie(DEVICE, device, {
      httpOnly: true,
      sameSite: 'strict',
      secure: request.secure,
      maxAge: YEAR_MS,
      path: '/api/v1/session',
    });
    await new Promise<void>((resolve, reject) => {
      request.session.regenerate((error: unknown) => (error == null ? resolve() : reject(error)));
    });
    request.session.who = who;
    // kept before the answer starts: whoever reads the cookie in its head may use it at once
    await new Promise<void>((resolve, reject) => {
      request.session.save((error: unknown) => (error == null ? resolve() : reject(error)));
    });
    return me(who);
  });

  mountRead(router, api.access.me, (who) => me(who));

  mountRead(router, api.access.signOut, async (_who, { request }) => {
    await new Promise<void>((resolve, reject) => {
      request.session.destroy((error: unknown) => (error == null ? resolve() : reject(error)));
    });
    return { done: true } as const;
  });
}
