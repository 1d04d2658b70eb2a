import { allCautions, limitProfiles } from '@zabrik/catalogue';
import type { Answer, Asked, api } from '@zabrik/contract';
import { figureOf, isLooser, isShownAsLimit, withFigure } from '@zabrik/core';
import { readHouse } from '../../db/house.ts';
import { profileNamed, readLimitChoice, readLimitHistory } from '../../db/limits.ts';
import { CautionSeenTable } from '../../db/models/cautionSeen.ts';
import { HouseLimitsTable } from '../../db/models/houseLimits.ts';
import { rowsOf } from '../../db/rows.ts';
import { Problem } from '../../http/problem.ts';
import type { InCommand, Services } from '../../services.ts';

/** The limits of the profile the house selected with the house's own figures, or of another one to look at. */
export async function readHouseLimits(
  services: Services,
  houseId: string,
  wanted: string | undefined,
): Promise<Answer<typeof api.house.limits>> {
  const house = await readHouse(services.db, { houseId });
  const choice = await readLimitChoice(services.db, houseId, house.timezone);
  const profile = wanted === undefined ? choice.profile : profileNamed(wanted);
  if (profile === undefined) throw new Problem('not_found', 'There is no such profile.');
  const changes = profile.id === choice.profile.id ? choice.changes : [];
  const history = await readLimitHistory(services.db, houseId);
  return {
    profileId: profile.id,
    selected: choice.selected && profile.id === choice.profile.id,
    title: profile.title,
    scope: profile.scope,
    deferral: profile.deferral,
    profiles: limitProfiles.map(({ id, title }) => ({ id, title })),
    limits: profile.limits.map((limit) => {
      const change = changes.find((c) => c.limitId === limit.id);
      const published = figureOf(limit);
      return {
        limit: change === undefined ? limit : withFigure(limit, change.figure),
        shownAs: isShownAsLimit(limit) ? ('limit' as const) : ('check-your-code' as const),
        changed:
          change === undefined || published === undefined
            ? null
            : { figure: change.figure, published, looser: isLooser(limit, change.figure), why: change.why },
      };
    }),
    history: history.map((h) => ({ ...h, at: h.at.toISOString() })),
  };
}

/** Selects a profile and the house's own figures in it. Errors: `invalid`, naming a limit that is not in it or has no figure to change. */
export async function saveLimits(
  services: Services,
  command: InCommand,
  { body }: Asked<typeof api.house.saveLimits>,
): Promise<Answer<typeof api.house.saveLimits>> {
  const profile = profileNamed(body.profileId);
  if (profile === undefined)
    throw new Problem('invalid', undefined, [{ path: 'profileId', message: 'no such profile' }]);
  for (const [i, change] of body.changes.entries()) {
    const limit = profile.limits.find((l) => l.id === change.limitId);
    if (limit === undefined || figureOf(limit) === undefined)
      throw new Problem('invalid', undefined, [
        { path: `changes.${i}.limitId`, message: 'no limit with a figure to change' },
      ]);
  }
  await rowsOf(services.db, HouseLimitsTable, command).add({
    id: command.newId(),
    profileId: profile.id,
    changes: body.changes,
    note: body.note,
    personId: command.actor.personId,
    at: command.at,
  });
  return { done: true };
}

export async function seeCaution(
  services: Services,
  command: InCommand,
  { body }: Asked<typeof api.house.seeCaution>,
): Promise<Answer<typeof api.house.seeCaution>> {
  if (!allCautions.some((c) => c.id === body.cautionId))
    throw new Problem('invalid', undefined, [{ path: 'cautionId', message: 'no such caution' }]);
  await rowsOf(services.db, CautionSeenTable, command).add({
    id: command.newId(),
    cautionId: body.cautionId,
    about: body.about,
    personId: command.actor.personId,
    at: command.at,
  });
  return { done: true };
}
