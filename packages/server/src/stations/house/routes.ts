import {
  allCategories,
  allCautions,
  categoryRules,
  inspectionClasses,
  pieceRules,
  standingCaution,
  tubPurposes,
} from '@zabrik/catalogue';
import { api, usualIdleMinutes } from '@zabrik/contract';
import { usualUnits } from '@zabrik/core';
import type { Router } from 'express';
import { v7 as uuidv7 } from 'uuid';
import { goodsHere } from '../../db/goodsHere.ts';
import { dayIn, placesOf, readHouse, toleranceOf } from '../../db/house.ts';
import { readLimitChoice } from '../../db/limits.ts';
import { HouseTable } from '../../db/models/house.ts';
import { readPantry } from '../../db/pantry.ts';
import { listPlans, readSpecies } from '../../db/plans.ts';
import { rowsOf } from '../../db/rows.ts';
import { select, selectOne } from '../../db/select.ts';
import { keepsCosts } from '../../http/hideCosts.ts';
import { mountCommand, mountRead } from '../../http/mount.ts';
import { Problem } from '../../http/problem.ts';
import type { Services } from '../../services.ts';
import { checkScale, readDevices, tryDevice } from './devices.ts';
import { readKeeping } from './keeping.ts';
import { readHouseLimits, saveLimits, seeCaution } from './limits.ts';
import { addPerson, changePerson, leave, readPeople, setPin } from './people.ts';
import { readChanges, saveSettings } from './settings.ts';

interface Figures {
  readonly receivedToday: number;
  readonly openBreakdowns: number;
  readonly lotsOnHand: number;
  readonly lotsDueToday: number;
  readonly batchesPlanned: number;
  readonly lastMainShare: number | null;
}

const FIGURES = `
select
  (select count(*)::int from delivery_line d where d.house_id = $1 and d.movement_id is not null and (d.at at time zone $2)::date = $3::date
     and not exists (select 1 from corrected c where c.house_id = d.house_id and c.id = d.movement_id)) as "receivedToday",
  (select count(*)::int from breakdown where house_id = $1 and state = 'open') as "openBreakdowns",
  (select count(*)::int from lot_balance where house_id = $1 and mass_mg > 0) as "lotsOnHand",
  (select count(*)::int from lot l join lot_balance b on b.lot_id = l.id
     where b.house_id = $1 and b.mass_mg > 0 and l.use_by <= $3::date) as "lotsDueToday",
  (select count(*)::int from batch where house_id = $1 and state in ('planned', 'on')) as "batchesPlanned",
  (select sum(p.mass_mg)::float8 / b.start_mg
     from (select * from breakdown where house_id = $1 and state = 'closed' order by closed_at desc, id limit 1) b
     join breakdown_piece p on p.breakdown_id = b.id and p.destination <> 'waste'
     join plan_version pv on pv.house_id = b.house_id and pv.id = b.plan_version
     join lateral jsonb_array_elements(pv.plan->'stages') as stage on stage->>'id' = b.stage_id
     join lateral jsonb_array_elements(stage->'pieces') as piece on piece->>'id' = p.piece_id and (piece->>'main')::boolean
     group by b.start_mg) as "lastMainShare"`;

export function houseRoutes(services: Services, router: Router): void {
  mountRead(services, router, api.house.read, async (actor) => {
    const house = await readHouse(services.db, actor);
    const { profile } = await readLimitChoice(services.db, house.id, house.timezone);
    const {
      school,
      scales,
      practiceScale,
      idleMinutes,
      tax,
      creditMinorPerKg,
      creditSaid,
      pantryMinorPerKg,
      pantryFrom,
      vessels,
      burners,
      machines,
      equipment,
      moulds,
      goods,
      labourMinorPerHour,
      energyMinorPerKwh,
      probeAt,
      printerAt,
      units,
    } = house.settings;
    return {
      id: house.id,
      slug: house.slug,
      name: house.name,
      currency: house.currency,
      timezone: house.timezone,
      school,
      scales,
      practiceScale: practiceScale ?? false,
      idleMinutes: idleMinutes ?? usualIdleMinutes,
      tax: tax ?? null,
      creditMinorPerKg,
      creditSaid: creditSaid ?? {},
      pantryMinorPerKg,
      pantryFrom: pantryFrom ?? {},
      labourMinorPerHour: labourMinorPerHour ?? null,
      vessels: [...vessels],
      burners: [...(burners ?? [])],
      machines: [...(machines ?? [])],
      equipment: [...(equipment ?? [])],
      moulds: [...(moulds ?? [])],
      goods: [...(goods ?? [])],
      energyMinorPerKwh: energyMinorPerKwh ?? null,
      units: units ?? usualUnits,
      probeAt: probeAt ?? null,
      printerAt: printerAt ?? null,
      places: placesOf(house),
      tolerance: toleranceOf(house),
      limits: { profileId: profile.id, title: profile.title },
      simulated: services.config.simulated,
      costs: (await keepsCosts(services.db, actor)) ? ('hidden' as const) : ('shown' as const),
      viewersSeeCosts: house.settings.viewersSeeCosts ?? true,
      version: house.version,
    };
  });

  mountRead(services, router, api.house.pantry, async (actor) => {
    const prices = await readPantry(services.db, await readHouse(services.db, actor), services.clock(), {});
    return { prices: [...prices].map(([id, price]) => ({ id, ...price })) };
  });
  mountRead(services, router, api.house.flow, async (actor) => {
    const house = await readHouse(services.db, actor);
    const now = services.clock();
    const figures = await selectOne<Figures>(services.db, FIGURES, [
      actor.houseId,
      house.timezone,
      dayIn(house.timezone, now),
    ]);
    if (figures === undefined) throw new Error('the flow figures gave no row');
    return { ...figures, at: now.toISOString() };
  });

  mountRead(services, router, api.house.catalogue, async (actor) => {
    const plans = await listPlans(services.db, actor.houseId);
    const species = await readSpecies(services.db, actor.houseId);
    return {
      categories: allCategories.map((c) => ({
        ...c,
        refused: pieceRules(c.id).refused,
        usual: categoryRules.get(c.id)?.usual ?? null,
      })),
      goods: goodsHere(),
      tubPurposes: [...tubPurposes.values()].map(({ id, title, accepts }) => ({ id, title, accepts })),
      inspection: inspectionClasses,
      species: [...species.values()],
      plans: plans.map(({ plan, own, retired }) => ({
        id: plan.id,
        version: plan.version,
        title: plan.title,
        body: plan.body,
        skill: plan.skill,
        starts: plan.starts,
        stages: plan.stages.map((s) => ({ id: s.id, name: s.name, steps: s.steps.length, minutes: s.minutes })),
        pooled: plan.pooled === true,
        own,
        retired,
      })),
    };
  });

  mountRead(services, router, api.house.limits, (actor, { query }) =>
    readHouseLimits(services, actor.houseId, query.profile),
  );
  mountCommand(services, router, api.house.saveLimits, ['house', 'lots'], (command, asked) =>
    saveLimits(services, command, asked),
  );
  mountRead(services, router, api.house.cautions, async (actor) => {
    const house = await readHouse(services.db, actor);
    const seen = await select<{ id: string }>(
      services.db,
      `select distinct caution_id as id from caution_seen where house_id = $1 and person_id = $2 and (at at time zone $3)::date = $4::date`,
      [actor.houseId, actor.personId, house.timezone, dayIn(house.timezone, services.clock())],
    );
    return { standing: standingCaution, cautions: allCautions, seenToday: seen.map((s) => s.id) };
  });
  mountCommand(services, router, api.house.saveViewers, ['house'], async (command, { body }) => {
    const houses = rowsOf(services.db, HouseTable, command);
    const house = await houses.one({}, { lock: 'update' });
    if (house === undefined) throw new Problem('not_found');
    await saveSettings(services, command, {
      params: undefined,
      query: undefined,
      body: { version: house.version, settings: { viewersSeeCosts: body.seeCosts } },
    });
    return { done: true } as const;
  });
  mountRead(services, router, api.house.people, (actor) => readPeople(services, actor));
  mountCommand(services, router, api.house.addPerson, ['house'], (command, asked) =>
    addPerson(services, command, asked),
  );
  mountCommand(services, router, api.house.changePerson, ['house'], (command, asked) =>
    changePerson(services, command, asked),
  );
  mountCommand(services, router, api.house.leave, ['house'], (command, asked) => leave(services, command, asked));
  mountRead(services, router, api.house.setPin, async (actor, asked) => {
    const done = await setPin(services, actor, asked, uuidv7);
    services.announce(actor.houseId, ['house']);
    return done;
  });
  mountCommand(services, router, api.house.saveSettings, ['house', 'catalogue'], (command, asked) =>
    saveSettings(services, command, asked),
  );
  mountRead(services, router, api.house.devices, (actor) => readDevices(services, actor));
  mountRead(services, router, api.house.tryDevice, (_, { body }) => tryDevice(body));
  mountCommand(services, router, api.house.checkScale, ['house'], (command, asked) =>
    checkScale(services, command, asked),
  );
  mountRead(services, router, api.house.changes, (actor, asked) => readChanges(services, actor, asked));
  mountRead(services, router, api.house.keeping, () => readKeeping(services.db));
  mountCommand(services, router, api.house.seeCaution, [], (command, asked) => seeCaution(services, command, asked));
}
