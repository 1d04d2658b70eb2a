/** What the house has chosen for itself, changed on its screens and written down, from what to what. */
import type { Answer, Asked, api, HouseSetting } from '@zabrik/contract';
import { worthSaidOn } from '@zabrik/core';
import { dayIn, placesOf } from '../../db/house.ts';
import { type HouseRow, HouseTable } from '../../db/models/house.ts';
import { SettingChangeTable } from '../../db/models/settingChange.ts';
import { rowsOf } from '../../db/rows.ts';
import { select } from '../../db/select.ts';
import { pageOf, readCursor } from '../../http/page.ts';
import { Problem } from '../../http/problem.ts';
import type { Actor, InCommand, Services } from '../../services.ts';

type Body = Asked<typeof api.house.saveSettings>['body'];

const twice = (things: readonly { readonly id: string; readonly name: string }[]): boolean =>
  new Set(things.map((t) => t.id)).size < things.length ||
  new Set(things.map((t) => t.name.toLowerCase())).size < things.length;

/** A place that something lies in, or a scale at a bench, is not taken away under it. */
async function mustStay(
  { db }: Services,
  command: InCommand,
  house: HouseRow,
  settings: Body['settings'],
): Promise<void> {
  if (settings.goods !== undefined) {
    const stay = new Set(settings.goods.map((g) => g.id));
    const gone = (house.settings.goods ?? []).filter((g) => !stay.has(g.id));
    const lying = await select<{ id: string }>(
      db,
      `select distinct l.goods as id from lot l join lot_balance b on b.lot_id = l.id and b.house_id = l.house_id
       where b.house_id = $1 and b.mass_mg > 0 and l.goods = any($2::text[])`,
      [command.houseId, gone.map((g) => g.id)],
      command.transaction,
    );
    const left = gone.find((g) => lying.some((l) => l.id === g.id));
    if (left !== undefined)
      throw new Problem('invalid', `Some ${left.name} still lies in the larder. Use it up, or take it out first.`, [
        { path: 'settings.goods', message: 'some of it still lies there' },
      ]);
  }
  if (settings.places === undefined) return;
  const before = new Set(placesOf(house).map((p) => p.id));
  const there = new Set(settings.places.map((p) => p.id));
  const used = await select<{ id: string; lots: number }>(
    db,
    `select l.place_id as id, count(*)::int as lots from lot l join lot_balance b on b.lot_id = l.id and b.house_id = l.house_id
     where b.house_id = $1 and b.mass_mg > 0 group by l.place_id`,
    [command.houseId],
    command.transaction,
  );
  const gone = used.find((u) => before.has(u.id) && !there.has(u.id));
  if (gone !== undefined)
    throw new Problem(
      'invalid',
      `${gone.lots} ${gone.lots === 1 ? 'lot lies' : 'lots lie'} in a place that would be gone. Move ${gone.lots === 1 ? 'it' : 'them'} first.`,
      [{ path: 'settings.places', message: 'something lies there' }],
    );
}

/**
 * Changes what is named and leaves the rest. Each that is another afterwards is written down by itself.
 *
 * Errors  `changed_since` where somebody was first; `invalid` for two things of one name, and for a place in which something lies.
 */
export async function saveSettings(
  services: Services,
  command: InCommand,
  { body: { version, settings } }: Asked<typeof api.house.saveSettings>,
): Promise<Answer<typeof api.house.saveSettings>> {
  const houses = rowsOf(services.db, HouseTable, command);
  const house = await houses.one({}, { lock: 'update' });
  if (house === undefined) throw new Problem('not_found');
  if (house.version !== version) throw new Problem('changed_since');
  for (const list of ['vessels', 'burners', 'machines', 'equipment', 'moulds', 'goods', 'places', 'scales'] as const)
    if (twice(settings[list] ?? []))
      throw new Problem('invalid', 'Two of them have the same name.', [
        { path: `settings.${list}`, message: 'the same name twice' },
      ]);
  await mustStay(services, command, house, settings);
  const before: Readonly<Record<string, unknown>> = { ...house.settings, name: house.name };
  const changes = (Object.keys(settings) as HouseSetting[]).filter(
    (what) => JSON.stringify(settings[what] ?? null) !== JSON.stringify(before[what] ?? null),
  );
  const { name = house.name, ...to } = settings;
  const { creditMinorPerKg: worth } = to;
  const creditSaid =
    worth &&
    worthSaidOn(
      house.settings.creditMinorPerKg,
      worth,
      house.settings.creditSaid ?? {},
      dayIn(house.timezone, command.at),
    );
  // what is said to be none is left out again: the usual holds
  const now = Object.fromEntries(
    Object.entries({ ...house.settings, ...(creditSaid === undefined ? {} : { creditSaid }), ...to }).filter(
      ([, value]) => value !== null && value !== undefined,
    ),
  ) as unknown as typeof house.settings;
  await houses.change({}, { name, settings: now, version: version + 1 });
  await rowsOf(services.db, SettingChangeTable, command).addAll(
    changes.map((what) => ({
      id: command.newId(),
      at: command.at,
      personId: command.actor.personId,
      what,
      before: before[what] ?? null,
      after: settings[what] ?? null,
    })),
  );
  return { version: version + 1 };
}

interface Change {
  readonly id: string;
  readonly at: Date;
  readonly by: string;
  readonly what: string;
  readonly about: string | null;
  readonly before: unknown;
  readonly after: unknown;
}

export async function readChanges(
  { db }: Services,
  { houseId, role }: Actor,
  { query }: Asked<typeof api.house.changes>,
): Promise<Answer<typeof api.house.changes>> {
  const from = readCursor(query.cursor);
  const found = await select<Change>(
    db,
    `select c.id, c.at, p.name as by, c.what, c.about, c.before, c.after
     from setting_change c join person p on p.id = c.person_id
     where c.house_id = $1 and ($2::timestamptz is null or (c.at, c.id) < ($2::timestamptz, $3::uuid))
     order by c.at desc, c.id desc limit $4`,
    [houseId, from?.at ?? null, from?.id ?? null, query.limit + 1],
  );
  // what an hour of somebody costs is between them and the head chef
  const told = (side: unknown): unknown => {
    if (role === 'head-chef' || typeof side !== 'object' || side === null || !('hourlyMinor' in side)) return side;
    const { hourlyMinor: _, ...rest } = side;
    return rest;
  };
  const { rows, next } = pageOf(found, query.limit, (c) => ({ at: c.at.toISOString(), id: c.id }));
  return {
    changes: rows.map((c) => ({
      ...c,
      before: told(c.before),
      after: told(c.after),
      at: c.at.toISOString(),
    })) as Answer<typeof api.house.changes>['changes'],
    next,
  };
}
