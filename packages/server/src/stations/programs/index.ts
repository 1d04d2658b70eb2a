import { api } from '@zabrik/contract';
import type { Router } from 'express';
import { signIn } from '../../access/signIn.ts';
import { mountRead } from '../../http/mount.ts';
import type { Services } from '../../services.ts';
import type { Station } from '../station.ts';
import { addHook, endHook, readHooks, tryHook } from './hooks.ts';
import { endToken, makeToken, readTokens } from './tokens.ts';

/** Programs of others: tokens they come with, addresses that are called. Its secrets are answered once and kept nowhere as they are, so nothing here is a command. */
export const programs: Station = {
  mount: (services: Services, router: Router) => {
    mountRead(services, router, api.programs.tokens, (actor) => readTokens(services, actor));
    mountRead(services, router, api.programs.makeToken, async (actor, asked) => {
      // a wrong one counts as a wrong try at the door
      await signIn(services.db, services.clock(), actor.personId, { pin: asked.body.pin });
      return makeToken(services, actor, asked);
    });
    mountRead(services, router, api.programs.endToken, (actor, asked) => endToken(services, actor, asked));
    mountRead(services, router, api.programs.hooks, (actor) => readHooks(services, actor));
    mountRead(services, router, api.programs.addHook, (actor, asked) => addHook(services, actor, asked));
    mountRead(services, router, api.programs.endHook, (actor, asked) => endHook(services, actor, asked));
    mountRead(services, router, api.programs.tryHook, (actor, asked) => tryHook(services, actor, asked));
  },
};
