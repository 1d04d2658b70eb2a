/** The first house of a machine, and the way back in for a head chef who has forgotten the password. */
import { createHash, timingSafeEqual } from 'node:crypto';
import { limitProfiles } from '@zabrik/catalogue';
import type { Answer, Asked, api } from '@zabrik/contract';
import { slugOf } from '@zabrik/core';
import { v7 as uuidv7 } from 'uuid';
import { codeAsPrinted, isTrivial, newCode, newPinHash } from '../../access/pins.ts';
import { hashSecret, secretFits } from '../../access/secrets.ts';
import type { HouseSettings } from '../../db/houseSettings.ts';
import { profileNamed, usualProfile } from '../../db/limits.ts';
import { HouseTable } from '../../db/models/house.ts';
import { HouseLimitsTable } from '../../db/models/houseLimits.ts';
import { PersonTable } from '../../db/models/person.ts';
import { SettingChangeTable } from '../../db/models/settingChange.ts';
import { rowsOf, serverRows } from '../../db/rows.ts';
import { Problem } from '../../http/problem.ts';
import type { Actor, Services } from '../../services.ts';

/** Six groups: 120 bits, on paper for years. */
const RECOVERY_GROUPS = 6;

/** What a kitchen has until it says otherwise: a bench scale of the usual kind and nothing that anybody would have to believe. Water and ice cost nothing. */
export const settingsAtFirst: HouseSettings = {
  school: 'by-product-credit',
  scales: [{ id: 'bench', name: 'Bench scale', accuracyClass: 'III', intervalMg: 1_000, maxMg: 15_000_000 }],
  creditMinorPerKg: {},
  pantryMinorPerKg: { water: 0, ice: 0 },
  vessels: [],
};

const same = (a: string, b: string): boolean => {
  const hash = (text: string): Buffer => createHash('sha256').update(text).digest();
  return timingSafeEqual(hash(a), hash(b));
};

export async function readSetUp(
  { db, config }: Services,
  timezone: string | undefined,
): Promise<Answer<typeof api.access.setUpOpen>> {
  const open = config.setUpCode !== undefined && (await serverRows(db, HouseTable).count({})) === 0;
  return {
    open,
    profiles: open ? limitProfiles.map(({ id, title, scope }) => ({ id, title, scope })) : [],
    usual: open && timezone !== undefined ? usualProfile(timezone) : null,
  };
}

/**
 * Makes the first house, with its head chef. Two at once: one is first, the other is told.
 *
 * Errors  `no_set_up` when a house stands; `wrong_code`; `bad_pin`; `invalid`, naming the profile.
 */
export async function setUp(
  services: Services,
  body: Asked<typeof api.access.setUp>['body'],
): Promise<{ readonly actor: Actor; readonly recoveryCode: string }> {
  const { db, config, clock } = services;
  if (config.setUpCode === undefined || (await serverRows(db, HouseTable).count({})) > 0)
    throw new Problem('no_set_up');
  if (!same(codeAsPrinted(body.code), config.setUpCode)) throw new Problem('wrong_code');
  if (isTrivial(body.headChef.pin)) throw new Problem('bad_pin');
  if (profileNamed(body.profileId) === undefined)
    throw new Problem('invalid', undefined, [{ path: 'profileId', message: 'no such profile' }]);
  const recoveryCode = newCode(RECOVERY_GROUPS);
  const [pinHash, passwordHash, recoveryHash] = await Promise.all(
    [body.headChef.pin, body.headChef.password, recoveryCode].map(hashSecret),
  );
  const { name, currency, timezone, profileId } = body;
  const actor: Actor = { personId: uuidv7(), name: body.headChef.name, role: 'head-chef', houseId: uuidv7() };
  await db.transaction(async (transaction) => {
    await db.query('select pg_advisory_xact_lock($1)', { bind: [SET_UP_LOCK], transaction });
    if ((await serverRows(db, HouseTable, transaction).count({})) > 0) throw new Problem('no_set_up');
    const mine = { houseId: actor.houseId, transaction };
    await serverRows(db, HouseTable, transaction).add({
      id: actor.houseId,
      // a name without one letter that could stand in an address
      slug: slugOf(name) || 'kitchen',
      name,
      currency,
      timezone,
      settings: body.units === undefined ? settingsAtFirst : { ...settingsAtFirst, units: body.units },
      recoveryHash: recoveryHash ?? null,
    });
    await rowsOf(db, PersonTable, mine).add({
      id: actor.personId,
      name: actor.name,
      role: actor.role,
      pinHash: pinHash ?? null,
      passwordHash: passwordHash ?? null,
    });
    const by = { personId: actor.personId, at: clock() };
    await rowsOf(db, HouseLimitsTable, mine).add({
      id: uuidv7(),
      profileId,
      changes: [],
      note: 'Chosen at set-up.',
      ...by,
    });
    await rowsOf(db, SettingChangeTable, mine).add({
      id: uuidv7(),
      what: 'set-up',
      after: { name, currency, timezone },
      ...by,
    });
  });
  return { actor, recoveryCode };
}
const SET_UP_LOCK = 7_305_411;

/** Another recovery code for the house. It is given once; what is kept is a hash. */
export async function newRecovery({ db }: Services, houseId: string): Promise<string> {
  const code = newCode(RECOVERY_GROUPS);
  await rowsOf(db, HouseTable, { houseId }).change({}, { recoveryHash: await hashSecret(code) });
  return code;
}

/**
 * A new PIN and password for a head chef, by the code that was printed. A code opens once.
 *
 * Errors  `wrong_code`, also where there is no such house, no such head chef or no code; `bad_pin`.
 */
export async function recover(services: Services, body: Asked<typeof api.access.recover>['body']): Promise<string> {
  const { db, clock } = services;
  const house = await serverRows(db, HouseTable).one({ slug: body.slug });
  const person =
    house === undefined
      ? undefined
      : await rowsOf(db, PersonTable, { houseId: house.id }).one({
          id: body.personId,
          role: 'head-chef',
          leftAt: null,
        });
  if (house?.recoveryHash == null || person === undefined) throw new Problem('wrong_code');
  if (!(await secretFits(house.recoveryHash, codeAsPrinted(body.code)))) throw new Problem('wrong_code');
  const mine = { houseId: house.id };
  const [pinHash, passwordHash] = await Promise.all([
    newPinHash(db, mine, person.id, body.pin),
    hashSecret(body.password),
  ]);
  await rowsOf(db, PersonTable, mine).change({ id: person.id }, { pinHash, passwordHash });
  await rowsOf(db, SettingChangeTable, mine).add({
    id: uuidv7(),
    at: clock(),
    personId: person.id,
    what: 'recovery',
    about: person.name,
  });
  return newRecovery(services, house.id);
}
